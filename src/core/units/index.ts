/** Units of measure and how they convert. Promises: a value told in another unit and back is the same to twelve digits. */
export { convert, leadingUnit, unitOf, UNITS, type Unit, type UnitKind } from './units';
export { NUMERALS } from './numerals';
