import '../usecases/usecases-see-ports';
