import '../trips/areas-see-ports';
