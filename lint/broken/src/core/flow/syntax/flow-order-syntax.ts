import '../plan/index';
