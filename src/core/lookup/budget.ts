/** The share of a budget at which its owner is told. */
export const NEARLY_SPENT = 0.8;
