import { z } from 'zod';
import type { DeepReadonly } from '../../base';
import { speaksOf, STANDARD } from '../../fields';
import { textsOf } from '../../writer';
import { ASKABLE_ROLES, libraryItemSchema, type Library, type LibraryItem } from '../check';
import { sayLine, type PartSlot } from '../say';
import { numberedLines, parseFlow, printFlow, type Span } from '../syntax';

/** Kinds of names a flow speaks of: those with a body that can travel, and those that exist only in a workspace. */
export const NAME_KINDS = [
  ...libraryItemSchema.options.map((option) => option.shape.kind.value),
  'team',
  'connection',
  'addressee',
  'webhook',
  'opening',
] as const;
export type NameKind = (typeof NAME_KINDS)[number];

export interface NameUse {
  readonly kind: NameKind;
  readonly name: string;
  /** of an intake: file, form, … */
  readonly intakeKind?: string;
  /** where the flow's text has it; empty where only a carried thing names it */
  readonly spans: readonly Span[];
  /** numbers of the lines, and names of the carried things, that name it */
  readonly by: readonly string[];
}

/** A flow that travels. */
export const bundleSchema = z.object({
  format: z.literal('millrace flow bundle 1'),
  text: z.string().max(500_000),
  things: z.array(libraryItemSchema).max(500),
});
export type Bundle = DeepReadonly<z.infer<typeof bundleSchema>>;

const KIND_OF_SLOT: Partial<Record<PartSlot, NameKind>> = {
  scorecard: 'scorecard',
  template: 'template',
  plan: 'plan',
  chain: 'chain',
  pipeline: 'pipeline',
  intake: 'intake',
  team: 'team',
  who: 'team',
  addressee: 'addressee',
  webhook: 'webhook',
  opening: 'opening',
};

/** Every name the flow's text and the carried things speak of, in reading order, each once. */
export function namesUsed(text: string, things: readonly LibraryItem[]): readonly NameUse[] {
  const { tree } = parseFlow(text);
  const uses = new Map<string, NameUse>();
  const add = (use: Omit<NameUse, 'spans' | 'by'> & { readonly span?: Span; readonly by: string }): void => {
    const key = nameKey(use);
    const before = uses.get(key);
    uses.set(key, {
      kind: use.kind,
      name: use.name,
      ...(use.intakeKind !== undefined && { intakeKind: use.intakeKind }),
      spans: [...(before?.spans ?? []), ...(use.span ? [use.span] : [])],
      by: [...new Set([...(before?.by ?? []), use.by])],
    });
  };
  for (const use of tree.uses) add({ kind: 'connection', name: use.value.text, span: use.value, by: 'the head' });
  for (const { line, number } of numberedLines(tree.lines))
    for (const { edit } of sayLine(line)) {
      // A stage by itself names every pipeline that is carried for it.
      if (line.step.verb === 'move' && edit?.slot === 'stage')
        for (const thing of things)
          if (thing.kind === 'pipeline' && thing.body.stages.includes(edit.source))
            add({ kind: 'pipeline', name: thing.name, by: `line ${number}` });
      const kind = edit?.quoted ? KIND_OF_SLOT[edit.slot] : undefined;
      if (!edit || kind === undefined || isRole(edit.slot, edit.source)) continue;
      const intakeKind = line.step.verb === 'take in' ? line.step.from.text : undefined;
      add({ kind, name: edit.source, ...(intakeKind !== undefined && { intakeKind }), span: edit, by: `line ${number}` });
    }
  const written = things
    .filter((thing) => thing.kind !== 'field')
    .map((thing) => ({ by: `${kindSaid(thing.kind)} “${thing.name}”`, text: JSON.stringify(thing.body) }));
  for (const thing of things)
    if (thing.kind === 'field')
      for (const { by } of [{ by: 'the flow', text }, ...written].filter((place) => speaksOf(place.text, thing.body.key)))
        add({ kind: 'field', name: thing.name, by });
  for (const thing of things)
    if (thing.kind === 'plan') {
      add({ kind: 'connection', name: thing.body.mailbox, by: `plan “${thing.name}”` });
      for (const name of thing.body.touches.flatMap(textsOf)) add({ kind: 'template', name, by: `plan “${thing.name}”` });
    }
  return [...uses.values()];
}

/** A kind as people speak of it. */
const kindSaid = (kind: LibraryItem['kind']): string => (kind === 'template' ? 'text' : kind === 'chain' ? 'lookup chain' : kind);

export const nameKey = (use: Pick<NameUse, 'kind' | 'name'>): string => `${use.kind} ${use.name}`;
const isRole = (slot: PartSlot, name: string): boolean => slot === 'who' && (ASKABLE_ROLES as readonly string[]).includes(name);

/** The things of a library one by one. */
export function itemsOf(library: Library): readonly LibraryItem[] {
  return [
    ...library.scorecards.map((body): LibraryItem => ({ kind: 'scorecard', name: body.name, body })),
    ...library.templates.map((body): LibraryItem => ({ kind: 'template', name: body.name, body })),
    ...library.plans.map((body): LibraryItem => ({ kind: 'plan', name: body.name, body })),
    ...library.chains.map((body): LibraryItem => ({ kind: 'chain', name: body.name, body })),
    ...library.pipelines.map((body): LibraryItem => ({ kind: 'pipeline', name: body.name, body })),
    ...library.intakes.map((body): LibraryItem => ({ kind: 'intake', name: body.name, body })),
    // What a business calls a standard field besides stays at home.
    ...library.fields
      .filter((field) => !STANDARD.of(field.record, field.key))
      .map((body): LibraryItem => ({ kind: 'field', name: `${body.record}.${body.key}`, body })),
  ];
}

/** The flow with what it names and what that names in turn; its text canonical, with marks. */
export function makeBundle(text: string, library: Library): Bundle {
  const all = new Map(itemsOf(library).map((item) => [nameKey(item), item]));
  const keys = (items: readonly LibraryItem[]): string => items.map(nameKey).sort().join('\n');
  // Pipelines may be named by a stage alone, fields by their keys: all are tried, and only those that are named stay.
  const tried = itemsOf(library).filter((item) => item.kind === 'pipeline' || item.kind === 'field');
  let things: readonly LibraryItem[] = tried;
  for (;;) {
    const found = namesUsed(text, [...things, ...tried.filter((item) => item.kind === 'field' && !things.includes(item))])
      .map((use) => all.get(nameKey(use)))
      .filter((item) => item !== undefined);
    if (keys(found) === keys(things)) break;
    things = found;
  }
  return { format: 'millrace flow bundle 1', text: printFlow(parseFlow(text).tree, { marks: true }), things: [...things] };
}
