import '../facts/index';
