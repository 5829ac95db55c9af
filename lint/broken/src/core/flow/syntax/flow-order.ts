import '../check/index';
