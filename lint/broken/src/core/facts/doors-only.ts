import '../base/ids';
