import { z } from 'zod';
import { printDuration } from '../../base';
import { clockText } from '../tree/notation';
import { armsOf, type Expr, type FlowTree, type Line, type Wait } from '../tree/tree';
import { verbs } from '../verbs';
import * as shapes from '../verbs/shapes';
import { unknown } from '../verbs/unknown';

/** A line as JSON; what its step holds beside the verb is the verb's own shape. */
interface LineJson {
  readonly mark: string;
  readonly off: boolean;
  readonly comments?: string[] | undefined;
  readonly step: Readonly<Record<string, unknown>>;
}

const lineSchema: z.ZodType<LineJson> = z.strictObject({
  mark: z.string().describe('short and stable: kept when the line is moved or reworded'),
  off: z.boolean(),
  comments: z.array(z.string()).optional(),
  // Made when first asked for: by then every verb is known.
  get step(): z.ZodType<LineJson['step']> {
    const [first, ...others] = [...verbs(), unknown].map((verb) => verb.json(() => lineSchema));
    return first ? z.discriminatedUnion('verb', [first, ...others]) : z.never();
  },
});

/** The published shape; `z.toJSONSchema` of it stands at `/api/v1/flows/schema`. */
export const flowJsonSchema = z.strictObject({
  name: shapes.name.optional(),
  about: shapes.name.optional(),
  uses: z.array(z.strictObject({ what: shapes.name, name: shapes.name, value: shapes.name })),
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
  const arms = armsOf(line);
  const inside =
    'arms' in said
      ? {
          verb: said.verb,
          arms: arms.map((entry) => ({
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
