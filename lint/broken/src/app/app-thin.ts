import '../server/trips/store/one';
