import '../../core/base/ids';
