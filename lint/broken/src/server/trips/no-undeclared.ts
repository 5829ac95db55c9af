import 'not-in-package-json';
