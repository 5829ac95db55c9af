/**
 * A flow's syntax tree as JSON, for programs that read flows. Promises: what is written fits the published schema; places
 * in the text are left out, expressions are FEEL as text. Refuses: reading - flow text is the truth.
 */
export { flowJson, flowJsonSchema, type FlowJson } from './json';
