import '../engine/index';
