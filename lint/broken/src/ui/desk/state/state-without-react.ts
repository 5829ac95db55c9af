import 'react';
