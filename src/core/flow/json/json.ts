import { z } from 'zod';
import { printDuration } from '../../base';
import { clockText, type Expr, type FlowTree, type Line, type Wait } from '../syntax';

const name = z.string().describe('a name in quotes, or a bare word');
const feel = z.string().describe('a FEEL expression (OMG DMN)');
const span = z.string().describe('a length of time, such as "2 days"');
const time = z.string().regex(/^\d\d:\d\d$/);
const amount = z.strictObject({ value: z.number(), unit: z.string().optional() });
const answer = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('number'), unit: z.string().optional() }),
  z.strictObject({ kind: z.literal('money'), currency: z.string().describe('ISO 4217') }),
  z.strictObject({ kind: z.literal('choice'), options: z.array(z.string()) }),
  z.strictObject({ kind: z.enum(['text', 'list', 'yes/no', 'year', 'date']) }),
]);
const question = z.strictObject({ id: name, type: answer, wording: z.string() });
const setting = z.strictObject({ field: name, value: feel });
const as = name.optional();

const waitFor = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('while'), length: span }),
  z.strictObject({ kind: z.literal('clock'), time, workingDay: z.boolean(), readerTime: z.boolean() }),
  z.strictObject({ kind: z.literal('date'), date: feel }),
  z.strictObject({ kind: z.literal('reply'), message: name, atMost: span.optional() }),
  z.strictObject({ kind: z.literal('condition'), when: feel, atMost: span.optional() }),
]);

const arm = z.strictObject({
  when: feel.optional().describe('left out for the arm of all others'),
  mark: z.string(),
  comments: z.array(z.string()).optional(),
  get lines() {
    return z.array(lineSchema);
  },
});

const step = z.discriminatedUnion('verb', [
  z.strictObject({
    verb: z.literal('take in'),
    from: name,
    name: name.optional(),
    oncePer: name.optional(),
    clock: z
      .strictObject({
        time,
        workingDays: z.boolean(),
        every: span.optional(),
        until: time.optional(),
        within: span.optional(),
        when: feel.optional(),
      })
      .optional(),
    change: z.strictObject({ fields: z.array(name), when: feel.optional() }).optional(),
  }),
  z.strictObject({ verb: z.literal('keep'), when: feel, unless: z.array(name).optional(), otherwise: setting.optional() }),
  z.strictObject({ verb: z.literal('match'), targets: z.array(name), askAbove: amount.optional(), sameAbove: amount.optional() }),
  z.strictObject({
    verb: z.literal('read'),
    target: name,
    places: z.array(name),
    questions: z.array(question),
    maxPages: amount.optional(),
    maxCost: amount.optional(),
    noOlder: span.optional(),
    as,
  }),
  z.strictObject({ verb: z.literal('score'), target: name, scorecard: name, as }),
  z.strictObject({ verb: z.literal('split'), arms: z.array(arm) }),
  z.strictObject({ verb: z.literal('look up'), field: name, chain: name }),
  z.strictObject({
    verb: z.literal('open'),
    what: z.enum(['deal', 'application']),
    pipeline: name.optional(),
    opening: name.optional(),
    stage: name,
    as,
  }),
  z.strictObject({ verb: z.literal('assign'), what: name.optional(), team: name }),
  z.strictObject({ verb: z.literal('set'), assignment: setting }),
  z.strictObject({ verb: z.literal('note'), text: feel }),
  z.strictObject({ verb: z.literal('write'), channel: name, template: name, as }),
  z.strictObject({
    verb: z.literal('ask'),
    who: name,
    message: name,
    within: span.optional(),
    otherwise: z
      .discriminatedUnion('does', [
        z.strictObject({ does: z.literal('stop'), text: z.string() }),
        z.strictObject({ does: z.literal('tell'), who: name, text: z.string() }),
      ])
      .optional(),
  }),
  z.strictObject({ verb: z.literal('send'), message: name, sameThread: z.boolean() }),
  z.strictObject({ verb: z.literal('follow up'), plan: name }),
  z.strictObject({ verb: z.literal('wait'), for: waitFor, as }),
  z.strictObject({ verb: z.literal('gather'), count: amount, atMost: span, as }),
  z.strictObject({
    verb: z.literal('sort'),
    text: feel,
    labels: z.array(z.strictObject({ name, meaning: z.string(), examples: z.array(z.string()) })),
    as,
  }),
  z.strictObject({ verb: z.literal('pick out'), document: name.optional(), text: feel, questions: z.array(question), as }),
  z.strictObject({ verb: z.literal('move'), what: name, stage: name }),
  z.strictObject({
    verb: z.literal('tell'),
    who: z.strictObject({ kind: z.enum(['role', 'named']), name }),
    byEmail: z.boolean(),
    text: feel,
    paper: name.optional(),
  }),
  z.strictObject({
    verb: z.literal('hand over'),
    to: name,
    answer: z.strictObject({ atMost: span, parts: z.array(z.strictObject({ id: name, type: answer })) }).optional(),
    as,
  }),
  z.strictObject({ verb: z.literal('call'), script: name, as }),
  z.strictObject({ verb: z.literal('book'), team: name, within: span.optional(), as }),
  z.strictObject({ verb: z.literal('prepare'), document: name, as }),
  z.strictObject({ verb: z.literal('stop'), reason: z.string().optional() }),
  z.strictObject({ verb: z.literal('unknown'), text: z.string() }),
]);

const lineSchema = z.strictObject({
  mark: z.string().describe('short and stable: kept when the line is moved or reworded'),
  off: z.boolean(),
  comments: z.array(z.string()).optional(),
  step,
});

/** The published shape; `z.toJSONSchema` of it stands at `/api/v1/flows/schema`. */
export const flowJsonSchema = z.strictObject({
  name: name.optional(),
  about: name.optional(),
  uses: z.array(z.strictObject({ what: name, name, value: name })),
  lines: z.array(lineSchema),
  comments: z.array(z.string()).optional(),
});
export type FlowJson = z.infer<typeof flowJsonSchema>;

/** The tree without its places in the text. */
export function flowJson(tree: FlowTree): FlowJson {
  return flowJsonSchema.parse({
    ...(tree.name && { name: tree.name.text }),
    ...(tree.about && { about: tree.about.text }),
    uses: tree.uses.map((use) => plain(use)),
    lines: tree.lines.map(lineJson),
    ...(tree.endComments.length > 0 && { comments: tree.endComments }),
  });
}

function lineJson(line: Line): unknown {
  const { step: said, mark, off, comments } = line;
  const inside =
    said.verb === 'split'
      ? {
          verb: said.verb,
          arms: said.arms.map((entry) => ({
            ...(entry.when && { when: plain(entry.when) }),
            mark: entry.mark,
            ...(entry.comments.length > 0 && { comments: entry.comments }),
            lines: entry.lines.map(lineJson),
          })),
        }
      : plain(said);
  return { mark, off, ...(comments.length > 0 && { comments }), step: inside };
}

/** Words and names become text, expressions FEEL, lengths and times as they are written; the rest stays, without places. */
function plain(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(plain);
  if (typeof value !== 'object' || value === null) return value;
  if ('parsed' in value) return (value as Expr).parsed.text.trim();
  if ('duration' in value) return printDuration((value as Wait).duration);
  if ('minute' in value) return clockText(value.minute as number);
  const entries = Object.entries(value).filter(([key, inner]) => key !== 'from' && key !== 'to' && inner !== undefined);
  const [only] = entries;
  if (entries.length === 1 && only?.[0] === 'text' && 'from' in value) return only[1];
  // `from` and `to` are places, except where a line itself has a part of that name.
  const own = ['from', 'to'].filter((key) => typeof (value as Record<string, unknown>)[key] === 'object');
  return Object.fromEntries([
    ...entries.map(([key, inner]) => [key, plain(inner)] as const),
    ...own.map((key) => [key, plain((value as Record<string, unknown>)[key])] as const),
  ]);
}
