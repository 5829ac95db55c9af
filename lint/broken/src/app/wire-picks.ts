import '../server/adapters/one';
