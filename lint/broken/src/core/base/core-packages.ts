import 'pino';
