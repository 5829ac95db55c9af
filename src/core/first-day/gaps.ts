/** The gaps of the first day's letter, in its order. */
export const GAPS = ['name', 'where', 'sells', 'mailbox', 'people', 'stages', 'asked', 'good', 'beside'] as const;
export type Gap = (typeof GAPS)[number];
