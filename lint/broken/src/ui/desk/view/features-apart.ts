import '../../flows/view/one';
