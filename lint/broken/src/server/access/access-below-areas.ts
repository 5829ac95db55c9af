import '../trips/store/one';
