import { keyFor, type FieldType } from '../fields';

/** Something to be known of every company: the field it goes into, and the question that is asked for it. */
export interface Asked {
  readonly key: string;
  readonly label: string;
  readonly type: FieldType;
  readonly unit: string | undefined;
  /** as questions write it: `number in ha` */
  readonly typeText: string;
  readonly wording: string;
}
export type AskedReading = { readonly ok: true; readonly asked: Asked } | { readonly ok: false; readonly why: string };

/** Types as people say them, behind a comma or in brackets. */
const SAID_TYPE = /[,(]\s*(number(?:\s+in\s+(\S{1,20}?))?|amount|yes\s?(?:\/|or)\s?no|year|date|list|text|name|place|months)\s*\)?$/i;
const TYPES: Readonly<Record<string, FieldType>> = {
  number: 'number',
  amount: 'number',
  year: 'year',
  date: 'date',
  list: 'list',
  months: 'list',
};

/** What the beginning of a question says of its answer. */
const BEGINNINGS: readonly (readonly [RegExp, FieldType])[] = [
  [/^(?:how (?:many|much|large|big|long|old)|(?:the )?number of)\b/, 'number'],
  [/^(?:whether|if|do they|does it|are they|is it|is there|are there)\b/, 'yes/no'],
  [/^(?:since when|(?:in )?(?:which|what) year|when\b.*\b(?:founded|began|opened|started))/, 'year'],
  [/^(?:which|what) (?:languages|countries|brands|products|services|months)\b/, 'list'],
];

const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}?`;

/** A question as it would be asked, of words that say what is wanted. */
function wordingOf(said: string): string {
  const many = /^(how (?:many|much)(?: \S+){0,4}) (they|it|there) (.+)$/i.exec(said);
  if (many)
    return sentence(`${many[1] ?? ''} ${many[2] === 'it' ? 'does' : many[2] === 'there' ? 'are' : 'do'} ${many[2] ?? ''} ${many[3] ?? ''}`);
  const whether = /^(?:whether|if) they (are |have been )?(.+)$/i.exec(said);
  if (whether)
    return sentence(
      whether[1] === undefined
        ? `do they ${whether[2] ?? ''}`
        : `${whether[1].trim().split(' ')[0] ?? 'are'} they ${whether[1].startsWith('have') ? 'been ' : ''}${whether[2] ?? ''}`,
    );
  const since = /^since when they (.+)$/i.exec(said);
  if (since) return sentence(`since when do they ${since[1] ?? ''}`);
  const turned = /^(where|how (?:large|big|long|old)) (.+) (is|are)$/i.exec(said);
  if (turned) return sentence([turned[1], turned[3], turned[2]].join(' '));
  return sentence(said);
}

/** What it is called on a record: without the words that only ask. */
function labelOf(said: string): string {
  const bare = said
    .replace(
      /^(?:how (?:many|much|large|big|long|old)|the number of|number of|whether (?:they|it|there)|if (?:they|it|there)|which|what|since when|where)\s+/i,
      '',
    )
    .replace(/^(?:their|the|its|they)\s+/i, '')
    .split(' ');
  // “vans they run”, “yard is”: what it is called ends before the words that ask.
  const end = bare.findIndex((word, i) => i > 0 && i >= bare.length - 4 && /^(?:they|it|there)$/i.test(word));
  const kept = end > 0 ? bare.slice(0, end) : bare.length > 1 && /^(?:is|are)$/i.test(bare.at(-1) ?? '') ? bare.slice(0, -1) : bare;
  return (kept.join(' ') || said).slice(0, 60);
}

/** Reads what somebody wants to know of every company: “how many vans they run, number”. */
export function readAsked(text: string): AskedReading {
  const whole = text.trim().replace(/\s+/g, ' ').replace(/[?.]$/, '');
  if (whole === '') return { ok: false, why: 'say what you want to know, as “how many vans they run”' };
  const told = SAID_TYPE.exec(whole);
  const said = (told ? whole.slice(0, told.index) : whole).trim();
  const word = told?.[1]?.toLowerCase() ?? '';
  const unit = told?.[2];
  const begins = BEGINNINGS.find(([pattern]) => pattern.test(said.toLowerCase()))?.[1] ?? 'text';
  const type = told === null ? begins : word.startsWith('yes') ? 'yes/no' : (TYPES[word.split(' ')[0] ?? ''] ?? 'text');
  const label = labelOf(said);
  const key = keyFor(label);
  if (key.length < 2) return { ok: false, why: `“${said}” has no word a field could be called by` };
  return {
    ok: true,
    asked: { key, label, type, unit, typeText: unit === undefined ? type : `${type} in ${unit}`, wording: wordingOf(said) },
  };
}
