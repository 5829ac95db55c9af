import 'postgres';
