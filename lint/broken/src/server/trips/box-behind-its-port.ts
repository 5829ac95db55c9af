import '../box/box-knows-nothing';
