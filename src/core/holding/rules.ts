import { near } from '../base';
import { compileFeel, parseFeel, typeOfFeel, type FeelExpr, type FeelScope } from '../feel';
import { speaksOf, type Catalogue } from '../fields';
import { dealShape, nameAt, type ResultShape } from '../flow/check';
import { readLoosely } from '../flow/phrase';
import { isCovered, OBJECTIONS, type ReplyDraft } from '../answers';
import type { ReplyReading } from '../reply';

export interface HoldRule {
  /** counted from 1, as it stands in the text */
  readonly line: number;
  readonly text: string;
  readonly does: 'hold' | 'send';
  /** undefined: it is about how many a person has decided */
  readonly when: FeelExpr | undefined;
  /** it holds until so many have been decided by a person */
  readonly first: number | undefined;
}
export interface RuleProblem {
  readonly line: number;
  readonly says: string;
  /** the line as it would be understood, ready to be put there */
  readonly instead?: string;
}
export interface HoldRules {
  readonly rules: readonly HoldRule[];
  readonly problems: readonly RuleProblem[];
}

const KINDS = 'interested, question, objection, not now, wrong person, decline, thanks, …';
/** What a rule can speak of besides person, company and deal. */
export const REPLY_SHAPE = {
  kind: { type: 'string', label: 'kind' },
  objection: { type: 'string', label: 'objection' },
  tone: { type: 'string', label: 'tone' },
  sure: { type: 'number', label: 'sureness' },
  covered: { type: 'boolean', label: 'covered' },
  questions: { type: 'number', label: 'questions' },
  language: { type: 'string', label: 'language' },
} as const satisfies ResultShape;

/** What each of them means, for those who write rules. */
export const REPLY_MEANS: Readonly<Record<keyof typeof REPLY_SHAPE, string>> = {
  kind: KINDS,
  objection: OBJECTIONS.join(', '),
  tone: 'negative, neutral, positive',
  sure: 'how surely its kind was understood, 0 to 1',
  covered: 'all they asked and objected is answered by what is agreed or what we say of ourselves',
  questions: 'how many questions they ask',
  language: 'the language of the answer: en, de, nl, fr, es',
};

export const MOST_RULES = 40;
const FIRST = /^the first (\d{1,4})$/i;

/** Reads rules. Empty lines and those that begin with `//` say nothing. */
export function readHoldRules(text: string, fields: Catalogue): HoldRules {
  const rules: HoldRule[] = [];
  const problems: RuleProblem[] = [];
  text.split('\n').forEach((row, i) => {
    const line = i + 1;
    const said = row.trim();
    if (said === '' || said.startsWith('//')) return;
    const read = readRule(said, line, fields);
    if ('does' in read) rules.push(read);
    else problems.push(read);
  });
  if (rules.length > MOST_RULES) problems.push({ line: rules[MOST_RULES]?.line ?? 1, says: `at most ${MOST_RULES} rules` });
  return { rules, problems };
}

function readRule(text: string, line: number, fields: Catalogue): HoldRule | RuleProblem {
  const [verb = '', ...words] = text.split(/\s+/);
  const does = verb.toLowerCase();
  const rest = words.join(' ');
  if (does !== 'hold' && does !== 'send')
    return { line, says: `a rule begins with hold or send${near(does, ['hold', 'send'])}: hold when reply.tone = "negative"` };
  const first = FIRST.exec(rest);
  if (first) {
    if (does === 'send') return { line, says: 'only hold is said of the first: what goes alone is earned', instead: `hold ${rest}` };
    return { line, text, does, when: undefined, first: Number(first[1]) };
  }
  const when = words.slice(1).join(' ');
  if (words[0]?.toLowerCase() !== 'when' || when === '')
    return { line, says: `after ${does} stands when and a condition${does === 'hold' ? ', or the first and a number' : ''}` };
  const read = readWhen(when, fields);
  if (read.ok) return { line, text, does, when: read.expr, first: undefined };
  const [loose] = loosely(when, fields);
  return { line, says: read.says, ...(loose !== undefined && { instead: `${does} when ${loose}` }) };
}

const shapes = (fields: Catalogue): ReadonlyMap<string, ResultShape> =>
  new Map<string, ResultShape>([
    ['reply', REPLY_SHAPE],
    ['deal', dealShape(fields)],
  ]);

type When = { readonly ok: true; readonly expr: FeelExpr } | { readonly ok: false; readonly says: string };
function readWhen(when: string, fields: Catalogue): When {
  const parsed = parseFeel(when);
  if (!parsed.expr) return { ok: false, says: parsed.problems[0]?.message ?? 'this is no condition' };
  const results = shapes(fields);
  const { type, problems } = typeOfFeel(parsed.expr, (segments) => nameAt(fields, 'person', results, segments));
  const [problem] = problems;
  if (problem) return { ok: false, says: problem.message };
  if (type.type !== 'boolean' && type.type !== 'any')
    return { ok: false, says: 'a condition must be true or false: compare it with something' };
  const hidden = fields.own.find((field) => field.isProtected && speaksOf(when, field.key));
  return hidden ? { ok: false, says: `“${hidden.label}” is protected: nobody is judged by it` } : { ok: true, expr: parsed.expr };
}

/** “objection is price and amount above 20,000 €”, as it is written exactly. */
function loosely(when: string, fields: Catalogue): readonly string[] {
  const plain = when
    .replace(/(\d)[,.\u00a0 ](?=\d{3}\b)/g, '$1')
    .replace(/€/g, 'EUR')
    .replace(/\b(?:they are|it is|is) sure\b/gi, 'sureness at least 0.8')
    .replace(/\bsure\b(?= (?:above|over|at least|more|below|under))/gi, 'sureness');
  const named = [...shapes(fields)].flatMap(([record, shape]) =>
    Object.entries(shape).map(([key, { type, label, unit }]) => ({
      says: [key.replace(/_/g, ' '), label ?? key],
      path: `${record}.${key}`,
      type: type === 'number' ? ('number' as const) : type === 'boolean' ? ('yes/no' as const) : ('text' as const),
      unit,
    })),
  );
  const read = readLoosely(plain, { about: 'person', fields, named });
  return read.ok ? read.feel.filter((feel) => readWhen(feel, fields).ok) : [];
}

/** What decides whether an answer goes alone. */
export interface Facing {
  readonly reading: Pick<ReplyReading, 'kind' | 'objection' | 'confidence' | 'tone' | 'toMachines'>;
  readonly draft: ReplyDraft;
  /** person at the top, company and deal below */
  readonly scope: FeelScope;
  /** how many answers of the mailbox a person has decided */
  readonly decided: number;
}
export interface HoldDecision {
  readonly does: 'hold' | 'send';
  /** the rule that decided; null: none held, or what no rule can change */
  readonly line: number | null;
  readonly says: string;
}

/** Why a draft waits for a person whatever the rules say; undefined: a rule may let it go. */
export function alwaysHeld({ reading, draft }: Pick<Facing, 'reading' | 'draft'>): string | undefined {
  const failed = draft.checks.find(({ ok }) => !ok);
  if (failed) return failed.says;
  if (reading.toMachines.length > 0) return 'words in it speak to a machine and not to us';
  if (reading.kind === 'angry' || reading.kind === 'unsubscribe') return 'who is angry hears from a person';
  if (draft.taken.length === 0) return 'nothing in it is answered by what is agreed';
  const open = draft.taken.find(({ by }) => by === null);
  if (open) return `nothing is agreed on “${open.said.words}”`;
  if (draft.fallback) return 'what is agreed is not in their language';
  return draft.leftOut.length > 0 ? `a sentence is missing: ${draft.leftOut[0] ?? ''}` : undefined;
}

/** The rules' decision on a draft. What cannot be told holds; where no rule speaks, it is held. */
export function decideHold(rules: readonly HoldRule[], facing: Facing): HoldDecision {
  const always = alwaysHeld(facing);
  if (always !== undefined) return { does: 'hold', line: null, says: always };
  const scope: FeelScope = { ...facing.scope, reply: replyScope(facing) };
  for (const { line, text, does, when, first } of rules) {
    if (first !== undefined) {
      if (facing.decided < first) return { does: 'hold', line, says: `${text}: ${facing.decided} of them decided` };
      continue;
    }
    const holds = when === undefined ? null : compileFeel(when)(scope);
    if (holds === true) return { does, line, says: text };
    if (holds === null && does === 'hold') return { does, line, says: `${text}: not known here` };
  }
  return { does: 'hold', line: null, says: rules.length === 0 ? 'everything waits for a person here' : 'no rule lets it go alone' };
}

function replyScope({ reading, draft }: Facing): FeelScope {
  return {
    kind: reading.kind,
    objection: draft.taken.find(({ said }) => said.kind === 'objection')?.said.about ?? reading.objection,
    tone: reading.tone ?? 'neutral',
    sure: reading.confidence,
    covered: isCovered(draft),
    questions: draft.taken.filter(({ said }) => said.kind === 'question').length,
    language: draft.language,
  };
}
