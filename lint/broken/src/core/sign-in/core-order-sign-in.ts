import '../engine/index';
export {};
