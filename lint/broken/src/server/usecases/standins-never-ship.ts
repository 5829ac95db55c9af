import '../../standins/one';
