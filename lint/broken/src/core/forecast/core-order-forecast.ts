import '../intake/index';
