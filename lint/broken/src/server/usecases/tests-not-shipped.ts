import './a.test';
