import type { FieldUse } from '../../api';
import { isFigure, STANDARD, type OwnField } from '../../core/fields';
import type { Tx } from '../db';
import { listFlows, listLibrary, versionsOf } from '../flows/store/flows';
import { listImports } from '../intake/store/imports';
import { listIntakes } from '../intake/store/intakes';
import { keptQuestions } from '../research/questions';

interface Speaking extends FieldUse {
  readonly says: string;
}
const LISTS = 50;
const KINDS: Readonly<Record<string, { readonly kind: FieldUse['kind']; readonly href: (id: string) => string }>> = {
  scorecard: { kind: 'scorecard', href: (id) => `/scorecards/${id}` },
  template: { kind: 'text', href: (id) => `/messages/texts/${id}` },
  plan: { kind: 'plan', href: (id) => `/messages/plans/${id}` },
  chain: { kind: 'lookup chain', href: () => '/lookups' },
};

/** What of a kept thing names fields, by the names of its parts: conditions, matchings. A text's are its slots and what its lines rest on. */
const CODE = new Set(['when', 'fills', 'target', 'field']);
const EITHER = (key: string): string => `company.${key} person.${key}`;

/** The parts of a thing that are names and conditions, as one text; prose that happens to hold a field's name is none of them. */
function codeOf(part: unknown, name = ''): string {
  if (typeof part === 'string') {
    if (CODE.has(name)) return part.includes(' ') || part.includes('.') ? part : EITHER(part);
    return [...part.matchAll(/\{([^{}]{1,200})\}/g)].map((slot) => slot[1]).join(' ');
  }
  if (Array.isArray(part))
    return part.map((entry: unknown) => (name === 'fields' && typeof entry === 'string' ? EITHER(entry) : codeOf(entry, name))).join('\n');
  if (typeof part !== 'object' || part === null) return '';
  return Object.entries(part)
    .map(([key, value]) => codeOf(value, key))
    .join('\n');
}
/** A flow without what stands in quotes. */
const unquoted = (text: string): string => text.replace(/"(?:[^"\\\n]|\\.)*"/g, '""');

/** Whether code speaks of a field: of a company by its path, or as a question that fills it; of a person also by its name alone. */
function speaks(says: string, { record, key }: Pick<OwnField, 'record' | 'key'>): boolean {
  const alone = record === 'company' ? `^\\s+${key}:` : `(?<![\\w.])${key}(?![\\w.])`;
  return new RegExp(`(?<![\\w.])${record}\\.${key}(?!\\w)|${alone}`, 'm').test(says);
}

/** Everything in the workspace that can speak of a field, with what it says. Live versions count beside drafts. */
async function everySaying(tx: Tx): Promise<readonly Speaking[]> {
  const [flows, library, intakes, questions, lists] = await Promise.all([
    listFlows(tx),
    listLibrary(tx),
    listIntakes(tx),
    keptQuestions(tx),
    listImports(tx, LISTS),
  ]);
  const live = await versionsOf(
    tx,
    flows.flatMap((flow) => flow.liveVersionId ?? []),
  );
  const liveText = new Map(live.map((version) => [version.id, version.text]));
  return [
    ...flows.map((flow): Speaking => ({
      kind: 'flow',
      name: flow.name,
      href: `/flows/${flow.id}`,
      says: unquoted(`${flow.draftText}\n${liveText.get(flow.liveVersionId ?? '') ?? ''}`),
    })),
    ...library.flatMap((item): Speaking[] => {
      const known = KINDS[item.kind];
      return known === undefined ? [] : [{ kind: known.kind, name: item.name, href: known.href(item.id), says: codeOf(item.body) }];
    }),
    ...intakes.flatMap((row): Speaking[] =>
      row.kind === 'form' || row.kind === 'webhook'
        ? [{ kind: row.kind, name: row.name, href: `/sources/${row.kind}s/${row.id}`, says: codeOf(row.body) }]
        : [],
    ),
    ...questions.map((question): Speaking => ({
      kind: 'question',
      name: question.wording,
      href: `/settings/questions/${question.id}`,
      says: `company.${question.id}`,
    })),
    ...lists.map((list): Speaking => ({
      kind: 'list',
      name: list.label,
      href: `/sources/lists/${list.id}`,
      says: list.matching.join(' '),
    })),
  ];
}

/** What uses each of the fields, by `record.key`; the same thing once. */
export async function usesOf(
  tx: Tx,
  fields: readonly Pick<OwnField, 'record' | 'key'>[],
): Promise<ReadonlyMap<string, readonly FieldUse[]>> {
  const sayings = await everySaying(tx);
  return new Map(
    fields.map(({ record, key }) => {
      const uses = sayings
        .filter((saying) => speaks(saying.says, { record, key }))
        .map(({ kind, name, href }): FieldUse => ({ kind, name, href }));
      return [
        `${record}.${key}`,
        uses.filter((use, i) => uses.findIndex((other) => other.kind === use.kind && other.name === use.name) === i),
      ];
    }),
  );
}

/** Fields that are asked for often enough to be found by an index: columns of lists, and what live flows speak of. */
export async function fieldsToIndex(tx: Tx, own: readonly OwnField[]): Promise<readonly OwnField[]> {
  const flows = await listFlows(tx);
  const live = await versionsOf(
    tx,
    flows.flatMap((flow) => flow.liveVersionId ?? []),
  );
  return own.filter(
    (field) =>
      STANDARD.of(field.record, field.key) === undefined &&
      ((field.isListed ?? false) ||
        live.some((version) => speaks(unquoted(version.text), field)) ||
        (isFigure(field) && (field.inDirectory ?? false))),
  );
}
