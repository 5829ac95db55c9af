/**
 * The compiled flow: numbered instructions with their conditions as closures, and the named things they use bound in.
 * Promises: a checked flow compiles; the same text and library give the same plan. Refuses: text with errors.
 */
export { compilePlan, END, instructionOf, sideBySide, type CompiledArm, type Instruction, type Plan } from './compile';
