import './one';
