import '../flow/plan/index';
