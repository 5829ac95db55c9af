import '../adapters/one';
