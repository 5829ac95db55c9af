/** What can have happened at a line, as its last word in the journal. */
export const OUTCOMES = ['passed', 'stopped', 'asked', 'waiting', 'stuck', 'retry', 'sent', 'off'] as const;
export type Outcome = (typeof OUTCOMES)[number];
