import '../../api/index';
