/** What is asked for, wanted and expressly not wanted. */
import { plainFold, type DocumentLine } from '../lines';
import type { Sentence } from './sentences';

export interface Requirement {
  readonly text: string;
  /** it would be nice, but does not have to be */
  readonly wish: boolean;
  readonly quote: string;
}

const NEEDS =
  /\b(?:must|shall|should|needs? to|need(?:s|ed)?|requires?|required|want(?:s)?|has to|have to|is to be|are to be|looking for|would (?:\w+ )?like|muss|mussen|soll(?:en|te)?|benotig\w*|brauchen|wunschen|suchen|mochten|moet(?:en)?|nodig|wensen|willen|zoeken|dient te|debe[n]?|necesita\w*|requiere\w*|queremos|buscamos|hace falta|doit|doivent|besoin|souhait\w*|exige\w*|il faut|il nous faut|voulons|cherchons)\b/;
/** A line that only says that a list follows. */
const LEADS = /:$/;
const LEADS_NEEDS =
  /\b(?:need|needs|want|wants|require\w*|must|looking for|wish\w*|should|ask for|expect|brauch\w*|benotig\w*|wunsch\w*|woll\w*|soll\w*|muss\w*|anforder\w*|nodig|will\w*|wens\w*|moet\w*|zoek\w*|necesit\w*|quer\w*|ped\w*|debe\w*|besoin|voul\w*|souhait\w*|faut|doit|exige\w*|following|folgende\w*|volgende|siguiente\w*|suivant\w*)\b/;
const WISH =
  /\(w\)|\b(?:wish\w*|nice to have|optional\w*|if possible|ideally|preferably|would be (?:nice|good)|wunschenswert|wunsch\w*|nach moglichkeit|idealerweise|gern\w*|wens\w*|liefst|bij voorkeur|indien mogelijk|graag|deseable|preferible\w*|si es posible|idealmente|souhaitable|de preference|si possible|idealement|un plus)\b/;
const UNWANTED =
  /\b(?:do(?:es)? not want|don't want|not wanted|no need (?:for|of)|must not (?:have|need|contain|use)|we (?:want|need) no\b|please no\b|not (?:interested in|required)|nicht gewunscht|nicht gewollt|(?:wollen|wunschen|brauchen|mochten) (?:wir )?(?:ausdrucklich )?(?:kein\w*|nicht)|kein\w* .{2,50} (?:gewunscht|erwunscht|notig)|bitte kein\w*|(?:willen|wensen|hoeven) (?:wij |we )?(?:nadrukkelijk )?(?:geen|niet)|niet gewenst|geen .{2,50} (?:gewenst|nodig)|liever geen|no queremos|no deseamos|no hace falta|nada de|sin necesidad de|ne (?:voulons|souhaitons|desirons) pas|pas besoin de|surtout pas|en aucun cas)\b/;
const MARKER = /^(?:\(?(?:[mw]|[a-z]?\d{1,3}(?:\.\d{1,3})*)[).:]?\)?\s+)?(?:\([mw]\)\s*)?/i;
const MIN = 6;
const MAX = 400;
const COUNT = 80;

const bare = (text: string): string =>
  text
    .replace(MARKER, '')
    .replace(/[.;,]$/, '')
    .trim();
const fits = (text: string): boolean => text.length >= MIN && text.length <= MAX && /\p{L}{3}/u.test(text);

export function requirementsOf(lines: readonly DocumentLine[], sentences: readonly Sentence[]): readonly Requirement[] {
  const own = [...inSection(lines, sentences, 'requirements', false), ...inSection(lines, sentences, 'wishes', true)];
  const found = own.length >= 2 ? own : [...own, ...listedBehind(lines), ...(listedBehind(lines).length > 0 ? [] : inProse(sentences))];
  const unwanted = new Set(excludedOf(lines, sentences).map(({ quote }) => quote));
  return unique(found.filter(({ quote, text }) => !unwanted.has(quote) && fits(text))).slice(0, COUNT);
}

export function excludedOf(lines: readonly DocumentLine[], sentences: readonly Sentence[]): readonly Requirement[] {
  const own = inSection(lines, sentences, 'excluded', false);
  const said = sentences
    .filter((sentence) => UNWANTED.test(sentence.folded) && sentence.section !== 'excluded')
    .map((sentence) => ({ text: bare(sentence.text), wish: false, quote: sentence.text }));
  return unique([...own, ...said].filter(({ text }) => fits(text))).slice(0, COUNT);
}

/** Of a section its list; of one without a list its sentences that ask for something, or all of short ones. */
function inSection(lines: readonly DocumentLine[], sentences: readonly Sentence[], section: string, wish: boolean): readonly Requirement[] {
  const own = lines.filter((line) => line.section === section);
  const items = own.filter(
    (line) => line.bullet || /^\(?(?:[mw]|[a-z]?\d{1,3}(?:\.\d{1,3})*)[).:]\)?\s/i.test(line.text) || /^\([mw]\)/i.test(line.text),
  );
  const listed =
    items.length >= 2 ? items : own.filter((line) => !line.text.includes('\t') && line.text.length <= 160 && !LEADS.test(line.text));
  if (items.length >= 2 || (listed.length === own.length && own.length >= 2 && own.every((line) => sentenceCount(line.text) === 1)))
    return listed.map((line) => ({ text: bare(line.text), wish: wish || WISH.test(line.folded), quote: line.text }));
  return sentences
    .filter(
      (sentence) =>
        sentence.section === section && (NEEDS.test(sentence.folded) || section !== 'requirements') && !LEADS.test(sentence.text),
    )
    .map((sentence) => ({ text: bare(sentence.text), wish: wish || WISH.test(sentence.folded), quote: sentence.text }));
}

const sentenceCount = (text: string): number => text.split(/(?<=[.!?])\s+(?=\p{Lu})/u).length;

/** “I need:” and the list behind it, in a text without headings. */
function listedBehind(lines: readonly DocumentLine[]): readonly Requirement[] {
  const out: Requirement[] = [];
  for (const [i, line] of lines.entries()) {
    if (!LEADS.test(line.text) || !LEADS_NEEDS.test(line.folded) || UNWANTED.test(line.folded)) continue;
    for (const item of lines.slice(i + 1)) {
      if (!item.bullet) break;
      out.push({ text: bare(item.text), wish: WISH.test(line.folded) || WISH.test(item.folded), quote: item.text });
    }
  }
  return out;
}

const NO_NEED =
  /\?$|\b(?:call|write|ring|contact|reply|answer|offer|quote|price|send|anrufen|melden|antwort\w*|angebot\w*|offerte|terugbellen|bellen|llam\w*|oferta|appel\w*|devis|deadline|budget|decide\w*|by \d)\b/;

/** By when, not what. */
const DATED = /\b\d{1,2}(?:st|nd|rd|th|\.)? \p{L}{3,10} 20\d\d\b|\b\p{L}{3,10} \d{1,2}, 20\d\d\b/u;

function inProse(sentences: readonly Sentence[]): readonly Requirement[] {
  return sentences
    .filter(
      (sentence) =>
        NEEDS.test(sentence.folded) &&
        !NO_NEED.test(sentence.folded) &&
        sentence.section !== 'deadline' &&
        sentence.section !== 'budget' &&
        !DATED.test(sentence.folded),
    )
    .map((sentence) => ({ text: bare(sentence.text), wish: WISH.test(sentence.folded), quote: sentence.text }));
}

function unique(all: readonly Requirement[]): readonly Requirement[] {
  const seen = new Set<string>();
  return all.filter(({ text }) => {
    const key = plainFold(text);
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}
