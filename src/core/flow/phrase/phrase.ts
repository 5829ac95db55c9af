import { catalogueOf } from '../../fields';
import type { Library } from '../meaning/library';
import type { Above } from '../parts/names';
import { refused, type Ask, type PhraseReading, type PhraseRule } from '../parts/phrasing';
import { numberedLines, parseFlow, parseLines, printFlow } from '../syntax';
import { verbs } from '../verbs';

export type { PhraseReading } from '../parts/phrasing';

/** What may not be done comes before what can. */
const NEVER: readonly PhraseRule[] = [
  [
    /\bwithout (?:asking|approval|a person|anyone)\b/,
    () => refused('nothing leaves without a person’s approval: ask … to approve …, then send'),
  ],
  [
    /\b(?:ignore|despite|even if).*(?:do.not.contact|unsubscribed?)\b/,
    () => refused('do-not-contact and unsubscribe always apply: no flow can switch them off'),
  ],
  [
    /^(?:delete|erase|remove) /,
    () =>
      refused('a flow deletes nothing: what is known of somebody stays, and who is not to be written to is put among those under Settings'),
  ],
  [/^(?:call|phone|ring) (?:them|him|her|the|up)\b/, () => refused('no telephone is connected to this workspace')],
  [/^(?:book|plan|arrange) (?:a )?(?:meeting|call|slot)\b/, () => refused('no calendar is connected to this workspace')],
  [/^wait (?:for ?ever|as long as it takes)/, () => refused('say how long: a wait without an end never ends')],
];
const rules = (): readonly PhraseRule[] => [...NEVER, ...verbs().flatMap((verb) => verb.phrases)];

/** What the lines above leave to speak of. */
function aboveOf(text: string, library: Library): Above {
  const named = new Map<string, string>();
  const { tree } = parseFlow(text);
  for (const { line } of numberedLines(tree.lines)) if ('as' in line.step && line.step.as) named.set(line.step.verb, line.step.as.text);
  return {
    about: tree.about?.text === 'deal' ? 'deal' : 'person',
    fields: catalogueOf(library.fields),
    score: named.get('score'),
    message: named.get('write'),
    deal: named.get('open'),
  };
}

/**
 * Reads a phrase in everyday words as flow text. Every line it gives parses and prints as itself; where a phrase may mean
 * several things all are given, and nothing is chosen. `above` is the flow's text before the place of the line.
 */
export function readPhrase(phrase: string, above: string, library: Library): PhraseReading {
  const said = phrase.trim().replace(/\s+/g, ' ').replace(/[.!]$/, '');
  if (said === '') return refused('nothing is typed');
  const ask: Ask = { said, library, above: aboveOf(above, library) };
  for (const [pattern, read] of rules()) {
    const found = pattern.exec(said.toLowerCase());
    if (!found) continue;
    const made = read(found, ask);
    if (!made.ok) return made;
    return { ok: true, lines: made.lines.map((line) => printFlow(parseLines(line).tree).trimEnd()) };
  }
  return refused('this cannot be read as a line: lines begin with a verb such as keep, read, score, write, ask, wait');
}
