import '../../../server/config';
