import '../server/store/one';
