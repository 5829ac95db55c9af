import '../../core/base/index';
