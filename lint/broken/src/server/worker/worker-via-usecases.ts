import '../store/one';
