export interface Sells {
  readonly what: string;
  readonly whom: string;
}

const tidy = (text: string): string => text.trim().replace(/\s+/g, ' ').replace(/[.!]$/, '');

/** What we sell and to whom, as a sentence we say of ourselves; empty while nothing is said. */
export function sellsText({ what, whom }: Sells): string {
  const [goods, buyers] = [tidy(what), tidy(whom)];
  if (goods === '') return buyers === '' ? '' : `We work for ${buyers}.`;
  return buyers === '' ? `We sell ${goods}.` : `We sell ${goods} to ${buyers}.`;
}

/** Back from that sentence: the last “to” is the one before the buyers. */
export function readSells(says: string): Sells {
  const both = /^We sell (.+) to (.+)\.$/.exec(says);
  if (both) return { what: both[1] ?? '', whom: both[2] ?? '' };
  return { what: /^We sell (.+)\.$/.exec(says)?.[1] ?? '', whom: /^We work for (.+)\.$/.exec(says)?.[1] ?? '' };
}
