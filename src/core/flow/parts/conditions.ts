import { convert, unitOf, UNITS } from '../../units';
import { digits, namesFor, type Above, type Named } from './names';

/** The readings of a loose condition as FEEL, or why there is none. */
export type ConditionReadings = { readonly ok: true; readonly feel: readonly string[] } | { readonly ok: false; readonly why: string };

const MOST_READINGS = 4;
const NUMBER = '(\\d+(?:\\.\\d+)?|one|two|three|four|five|six|seven|eight|nine|ten)';
/** Units of measure as they are said, and what is counted without being one. */
const MEASURES = UNITS.flatMap((unit) => [unit.sign, unit.ucum, ...unit.names])
  .map((name) => name.replace(/[.+?^${}()|[\]\\/]/g, '\\$&').replace(/\*$/, '\\p{L}*'))
  .sort((a, b) => b.length - a.length)
  .join('|');
const UNIT = `(?:\\s*(${MEASURES}|eur|euros?|points?|people|employees))?`;

/** Phrases in order: the first that fits decides. Each gives the parts of a comparison, or a ready test of being there. */
type Build = (found: readonly string[]) => {
  readonly name: string;
  readonly op: string;
  readonly value: string;
  readonly unit?: string | undefined;
};
const compare =
  (op: string): Build =>
  (found) => ({ name: found[1] ?? '', op, value: digits(found[2] ?? ''), unit: found[3] });
const turned =
  (op: string): Build =>
  (found) => ({ name: found[3] ?? found[2] ?? '', op, value: digits(found[1] ?? ''), unit: found[3] === undefined ? undefined : found[2] });
const RULES: readonly (readonly [RegExp, Build])[] = [
  [
    new RegExp(`^(.+?) (?:is |are |was )?(?:above|over|more than|greater than|higher than|larger than|bigger than) ${NUMBER}${UNIT}$`, 'u'),
    compare('>'),
  ],
  [new RegExp(`^(.+?) (?:is |are )?(?:at least|no less than|from) ${NUMBER}${UNIT}$`, 'u'), compare('>=')],
  [new RegExp(`^(.+?) (?:is |are )?${NUMBER}${UNIT} or more$`, 'u'), compare('>=')],
  [new RegExp(`^(.+?) (?:is |are )?(?:below|under|less than|lower than|smaller than|fewer than) ${NUMBER}${UNIT}$`, 'u'), compare('<')],
  [new RegExp(`^(.+?) (?:is |are )?(?:at most|no more than|up to) ${NUMBER}${UNIT}$`, 'u'), compare('<=')],
  [new RegExp(`^(?:they have |has |have |with )?${NUMBER} ?(${MEASURES}) or more(?: of)? (.+)$`, 'u'), turned('>=')],
  [
    new RegExp(`^(?:they have |has |have |with )?(?:at least|no less than) ${NUMBER} ?(${MEASURES}|) ?(?:of )?(\\D.{0,200})$`, 'u'),
    turned('>='),
  ],
  [new RegExp(`^(?:they have |has |have |with )?(?:more than|over) ${NUMBER} ?(${MEASURES}|) ?(?:of )?(\\D.{0,200})$`, 'u'), turned('>')],
  [
    new RegExp(`^(?:they have |has |have |with )?(?:less than|fewer than|under) ${NUMBER} ?(${MEASURES}|) ?(?:of )?(\\D.{0,200})$`, 'u'),
    turned('<'),
  ],
  [/^(.+?) (?:is |are )?(?:unknown|missing|empty|not known)$/, (found) => ({ name: found[1] ?? '', op: '=', value: 'null' })],
  [/^(?:they have |has |have |with )no (.+)$/, (found) => ({ name: found[1] ?? '', op: '=', value: 'null' })],
  [/^without (?:an? )?(.+)$/, (found) => ({ name: found[1] ?? '', op: '=', value: 'null' })],
  [/^(.+?) (?:is |are )?(?:known|there|given|filled|present)$/, (found) => ({ name: found[1] ?? '', op: '!=', value: 'null' })],
  [/^(?:they |who |that |which )?(?:have|has|with) (?:an? |the )?(.+)$/, (found) => ({ name: found[1] ?? '', op: '!=', value: 'null' })],
  [/^(.+?) (?:is not|isn't|are not) (.+)$/, (found) => ({ name: found[1] ?? '', op: '!=', value: found[2] ?? '' })],
  [/^(.+?) contains (.+)$/, (found) => ({ name: found[1] ?? '', op: 'contains', value: found[2] ?? '' })],
  [/^(.+?) (?:is|are|=) (.+)$/, (found) => ({ name: found[1] ?? '', op: '=', value: found[2] ?? '' })],
];

const lead = /^(?:they |the |it |company |companies |whose |who |that |which |it's |there is |there are )+(?=\S)/;

function oneTest(clause: string, above: Above): ConditionReadings {
  const said = clause.trim().replace(/\s+/g, ' ');
  const plain = said.toLowerCase();
  for (const [pattern, build] of RULES) {
    for (const text of [plain, plain.replace(lead, '')]) {
      const found = pattern.exec(text);
      if (!found) continue;
      const { name, op, value, unit } = build(found);
      const names = namesFor(name.replace(lead, ''), above);
      if (names.length === 0) continue;
      const tests = names.flatMap((named) => write(named, op, inUnit(value, unit, named.unit), said) ?? []);
      if (tests.length > 0) return { ok: true, feel: tests };
    }
  }
  // “has a contract”, “a move was announced”: a yes/no field alone.
  for (const text of [plain, plain.replace(lead, ''), plain.replace(lead, '').replace(/ (?:was|is|has been|have been) announced$/, '')]) {
    const yes = namesFor(text.replace(/^announced an? /, ''), above).filter((named) => named.type === 'yes/no');
    if (yes.length > 0) return { ok: true, feel: yes.map((named) => `${named.path} = true`) };
  }
  if (/\b(?:score|points|fit|rating|band)\b/.test(plain) && !above.score)
    return { ok: false, why: 'nothing has been scored above: put a score line first' };
  return { ok: false, why: `“${said}” names no field that is known here` };
}

/** A figure that was said in another unit of the same kind, in the field's own; as it is where that cannot be told. */
function inUnit(value: string, said: string | undefined, own: string | undefined): string {
  const [from, to] = [said === undefined ? undefined : unitOf(said), own === undefined ? undefined : unitOf(own)];
  const told = from && to && /^\d+(?:\.\d+)?$/.test(value) ? convert(Number(value), from, to) : undefined;
  return told === undefined ? value : String(told);
}

function write(named: Named, op: string, value: string, said: string): string | undefined {
  const numeric = named.type === 'number' || named.type === 'money' || named.type === 'year' || named.type === 'points';
  if (value === 'null') return named.type === 'points' ? undefined : `${named.path} ${op} null`;
  if (numeric) return /^\d+(?:\.\d+)?$/.test(value) ? `${named.path} ${op} ${value}${named.unit ? ` ${named.unit}` : ''}` : undefined;
  if (/^\d+(?:\.\d+)?$/.test(value) && op !== '=' && op !== '!=') return undefined;
  if (named.type === 'yes/no')
    return /^(?:yes|true|no|false)$/.test(value) ? `${named.path} ${op} ${/^(?:yes|true)$/.test(value)}` : undefined;
  const at = said.toLowerCase().lastIndexOf(value);
  const words = (at < 0 ? value : said.slice(at, at + value.length)).replace(/^["“]|["”]$/g, '');
  return op === 'contains' ? `contains(${named.path}, "${words}")` : `${named.path} ${op} "${words}"`;
}

/** Reads a loose condition: clauses joined by “and” or “or”, each in everyday words. */
export function readCondition(text: string, above: Above): ConditionReadings {
  const clauses = text.split(/\s(and|or(?! more\b| less\b))\s/);
  let readings: readonly string[] = [''];
  let words = 0;
  for (let i = 0; i < clauses.length; i += 2) {
    // “2 and 4” of “between 2 and 4” is one clause.
    let clause = clauses[i] ?? '';
    if (/\bbetween \S+$/.test(clause) && clauses[i + 1] === 'and') {
      clause = `${clause} and ${clauses[i + 2] ?? ''}`;
      i += 2;
    }
    const between = new RegExp(`^(.+?) (?:is |are )?between ${NUMBER} and ${NUMBER}${UNIT}$`, 'u').exec(clause.toLowerCase());
    const test: ConditionReadings = between ? ranged(between, above) : oneTest(clause, above);
    if (!test.ok) return test;
    const joint = words === 0 ? '' : ` ${clauses[i - 1] === 'or' ? 'or' : 'and'} `;
    readings = readings.flatMap((sofar) => test.feel.map((feel) => `${sofar}${joint}${feel}`)).slice(0, MOST_READINGS);
    words += 1;
  }
  return { ok: true, feel: readings };
}

function ranged(found: readonly string[], above: Above): ConditionReadings {
  const names = namesFor((found[1] ?? '').replace(lead, ''), above).filter(
    (named) => named.type === 'number' || named.type === 'money' || named.type === 'year' || named.type === 'points',
  );
  const [low, high] = [digits(found[2] ?? ''), digits(found[3] ?? '')];
  if (names.length === 0) return { ok: false, why: `“${found[1] ?? ''}” names no number that is known here` };
  return {
    ok: true,
    feel: names.map(
      (named) => `${named.path} between ${low}${named.unit ? ` ${named.unit}` : ''} and ${high}${named.unit ? ` ${named.unit}` : ''}`,
    ),
  };
}
