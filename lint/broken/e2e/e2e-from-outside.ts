import '../src/server/config';
