/** What `keep … unless` can screen out before anything is spent. */
export const SCREENS = [
  'test entry',
  'abusive words',
  'disposable mailbox',
  'role mailbox',
  'missing site',
  'parked site',
  'customer',
  'do not contact',
  'same again',
] as const;
export type Screen = (typeof SCREENS)[number];
export const isScreen = (words: string): words is Screen => (SCREENS as readonly string[]).includes(words);
