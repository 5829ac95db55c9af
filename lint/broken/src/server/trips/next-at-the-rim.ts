import 'next';
