/** What is kept for a time only, and how long, in days; 0: for ever. */
export const KEPT = {
  pages: { label: 'pages that were read', usual: 180, says: 'A page read anew later is read from its site.' },
  readings: { label: 'answers read for trials', usual: 60, says: 'A trial after that reads anew.' },
  lists: { label: 'files of lists taken in', usual: 90, says: 'Records and their sources stay; refused rows can no longer be fetched.' },
  papers: { label: 'papers that came with forms and mails', usual: 0, says: 'What was read of them stays, with its words.' },
  journals: { label: 'journals of trips that ended', usual: 0, says: 'That they ran, how they ended and what they cost stays.' },
} as const;
export type Kept = keyof typeof KEPT;
export type Keeping = Readonly<Record<Kept, number>>;
export const KEPT_KINDS = Object.keys(KEPT) as readonly Kept[];
export const USUAL_KEEPING: Keeping = Object.fromEntries(KEPT_KINDS.map((kind) => [kind, KEPT[kind].usual])) as Keeping;
