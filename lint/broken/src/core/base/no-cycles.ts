import './partner';
