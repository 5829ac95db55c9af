import { plainFold } from './lines';

/** An e-mail address as it stands within a line. */
export const EMAIL = /(?<![\w.+-])[\w.+-]{1,64}@[\w-]{1,63}(?:\.[\w-]{1,63}){1,8}/;

const lettersOf = (text: string): string => plainFold(text).replace(/[^a-z]/g, '');

/** How many words of a name its owner's e-mail address spells: two of “Rosalinde Achterberg” in `rosalinde.achterberg@…`. */
export function fitsAddress(name: string, address: string | null): number {
  const [local = '', domain = ''] = (address ?? '').split('@');
  const spelled = `${lettersOf(local)} ${lettersOf(domain.split('.').slice(0, -1).join(''))}`;
  const words = plainFold(name)
    .split(/[\s-]+/)
    .map((word) => word.replace(/[^a-z]/g, ''))
    .filter((word) => word.length > 2);
  return words.filter((word) => spelled.includes(word)).length;
}
