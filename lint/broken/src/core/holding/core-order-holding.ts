import '../engine';
