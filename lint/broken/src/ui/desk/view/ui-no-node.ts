import 'node:fs';
