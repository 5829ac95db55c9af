/**
 * FEEL, the expression language of the DMN standard: parsed once into a small tree, checked against names and types,
 * compiled to a closure (and open to a second compiler, to SQL). Promises: parsing is total - problems are values with a
 * span; running never throws and never loops without end. Refuses: iteration and contexts (`for`, `some`, `{…}`) for now.
 */
export type { BinaryOp, FeelExpr, FeelProblem, FeelTest, ParsedFeel } from './tree';
export { feelPaths } from './tree';
export { parseFeel } from './parse';
export { compileFeel, type FeelClosure } from './compile';
export { compileFeelSql, type CompiledSql, type SqlName, type SqlNameOf, type SqlPiece } from './sql';
export type { FeelScope, FeelValue } from './value';
export { typeOfFeel, type FeelName, type FeelType, type NameOf } from './types';
export { FUNCTIONS } from './functions';
