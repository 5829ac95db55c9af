import { fold } from '../../base';
import type { Said } from '../said';

/** Words that bring in another house by its name: “our sister house, the Moorhof”, “our partner Hallerby Dock Works”. */
const BROUGHT_IN =
  /(?<![\p{L}-])(?:(?:sister|partner|parent) (?:firm|company|house|hotel|site|school|business|practice|home)|partners?|neighbou?rs?|friends|colleagues|supplier|subsidiary|(?:a|another) (?:firm|company)\b[^.,;:]{0,24}|[Ss]chwester(?:haus|firma|betrieb|unternehmen)?|[Pp]artner(?:firma|betrieb|in)?|[Nn]achbar(?:n|betrieb|in)?|[Ff]reunde|[Kk]ollegen|[Tt]ochter(?:firma|gesellschaft)|zuster(?:bedrijf|huis)|buren|buurman|vrienden|collega[’']?s|(?:empresa|casa) hermana|amigos|socio|vecinos|(?:maison|société) sœur|maison soeur|amis|voisins?|partenaires?)(?![\p{L}-])/gu;
/** Small words, and one comma, may stand between. */
const LEADS =
  /^(?:,?\s(?:of|at|from|in|the|called|der|die|das|dem|den|von|vom|bei|in|am|van|bij|de|het|del|la|el|du|des|le|chez|à)){0,3},?\s/u;
const RUN = /^\p{Lu}[\p{L}'’-]{2,}(?:\s(?:(?:de|of|am|an|der|van|la|le|du|and|&)\s)?\p{Lu}[\p{L}'’-]{2,})*/u;
const SHORTEST = 4;

/**
 * Names by which other houses go on a site, folded, word by word. `own`: words of the firm's own name. What also stands somewhere in small
 * letters is an ordinary word; of a German name, where every noun has a capital, only the last word is taken.
 */
export function namesOfOthers(said: readonly Said[], own: ReadonlySet<string>): ReadonlySet<string> {
  const found = new Set<string>();
  for (const { text, language } of said)
    for (const brought of text.matchAll(BROUGHT_IN)) {
      const rest = text.slice(brought.index + brought[0].length);
      const run = RUN.exec(rest.replace(LEADS, ''))?.[0];
      if (run === undefined || !/^[,\s]/.test(rest)) continue;
      const words = run.split(/\s/);
      const small = words.findIndex((word) => !/^\p{Lu}/u.test(word));
      const named = language === 'de' ? words.slice(0, small < 0 ? undefined : small).slice(-1) : words;
      for (const word of named) if (word.length >= SHORTEST && /^\p{Lu}/u.test(word)) found.add(fold(word));
    }
  for (const word of own) found.delete(word);
  if (found.size > 0)
    for (const { text } of said) for (const small of text.matchAll(/(?<![\p{L}\p{N}])\p{Ll}[\p{L}]+/gu)) found.delete(fold(small[0]));
  return found;
}
