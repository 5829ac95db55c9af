import '../server/config';
