import { z } from 'zod';
import { catalogueOf } from '../../fields';
import type { Library } from '../meaning/library';
import { nameOfField, type ResultShape } from '../meaning/scope';
import { exists } from '../meaning/way';
import { deed, named, plain, value } from '../parts/parts';
import { reading, refused, thing, type Ask, type PhraseReading } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import type { Cursor } from '../tree/cursor';
import { asText, quote } from '../tree/notation';
import type { Named, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface OpenDeal {
  readonly verb: 'open';
  readonly what: 'deal';
  readonly pipeline: Named;
  readonly stage: Named;
  readonly as?: Word;
}
export interface OpenApplication {
  readonly verb: 'open';
  readonly what: 'application';
  readonly opening: Named;
  readonly stage: Named;
  readonly as?: Word;
}
export type Open = OpenDeal | OpenApplication;
declare module '../tree/tree' {
  interface Steps {
    readonly open: Open;
  }
}

export const open: VerbOf<Open> = {
  verb: 'open',
  help: 'Opens a deal for the company at a stage of a pipeline, or an application of the person for an opening.',
  begins: [
    ['open', 'open deal in "', 'a deal'],
    ['open application', 'open application for "', 'of a candidate'],
  ],
  names: [
    [/\bopen deal in ".*" at $/, (library, before) => stagesAfter(library.pipelines, before), 'stage'],
    [/\bopen deal in $/, (library) => library.pipelines.map((pipeline) => pipeline.name), 'pipeline'],
    [/\bopen application for ".*" at $/, (library, before) => stagesAfter(library.openings, before), 'stage'],
    [/\bopen application for $/, (library) => library.openings.map((opening) => opening.name), 'opening'],
  ],
  speaks: [],
  phrases: [[/^(?:open|make|create|start) (?:a |the )?deal(?: in (.+?))?(?: at (.+))?$/, openDeal]],
  samples: ['open deal in "{pipeline}" at "{stage}" as deal%', 'open application for "{opening}" at "{opening stage}" as applied%'],

  read(row, clauses) {
    refuse(clauses, 'open');
    return row.take('application') ? readApplication(row) : readDeal(row);
  },
  print: (step) => [
    step.what === 'deal'
      ? `open deal in ${quote(step.pipeline.text)} at ${quote(step.stage.text)}${asText(step.as)}`
      : `open application for ${quote(step.opening.text)} at ${quote(step.stage.text)}${asText(step.as)}`,
  ],
  check(step, _way, { library }, say) {
    const [wanted, among, what] =
      step.what === 'deal'
        ? ([step.pipeline, library.pipelines, 'pipeline'] as const)
        : ([step.opening, library.openings, 'opening'] as const);
    exists(
      wanted,
      among.map((entry) => entry.name),
      what,
      say,
    );
    const found = among.find((entry) => entry.name === wanted.text);
    if (found) exists(step.stage, found.stages, `stage of ${wanted.text}`, say);
  },
  result: ({ what }, library) => (what === 'deal' ? dealShape(library) : applicationShape(library)),
  say: (step) => [
    deed('Open'),
    ...(step.what === 'deal'
      ? [value('deal'), plain('in'), named(step.pipeline, 'pipeline')]
      : [value('application'), plain('for'), named(step.opening, 'opening')]),
    plain('at'),
    named(step.stage, 'stage'),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('open'),
      what: z.enum(['deal', 'application']),
      pipeline: shapes.name.optional(),
      opening: shapes.name.optional(),
      stage: shapes.name,
      as: shapes.as,
    }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};

function readDeal(row: Cursor): OpenDeal | undefined {
  if (!row.want('deal', 'open deal in "Sales" at "Qualified"') || !row.want('in', 'open deal in "Sales"')) return undefined;
  const pipeline = row.wantName('the pipeline');
  if (!pipeline || !row.want('at', 'at "Qualified"')) return undefined;
  const stage = row.wantName('the stage');
  const as = row.asName();
  return stage && { verb: 'open', what: 'deal', pipeline, stage, ...(as && { as }) };
}

function readApplication(row: Cursor): OpenApplication | undefined {
  if (!row.want('for', 'open application for "Commissioning technician" at "Received"')) return undefined;
  const opening = row.wantName('the opening');
  if (!opening || !row.want('at', 'at "Received"')) return undefined;
  const stage = row.wantName('the stage');
  const as = row.asName();
  return stage && { verb: 'open', what: 'application', opening, stage, ...(as && { as }) };
}

const stagesAfter = (among: readonly { readonly name: string; readonly stages: readonly string[] }[], before: string): readonly string[] =>
  among.find((entry) => entry.name === /"([^"]*)" at $/.exec(before)?.[1])?.stages ?? [];

/** What is known of a deal that a line opened: the fields of deals. */
const dealShape = ({ fields }: Pick<Library, 'fields'>): ResultShape =>
  Object.fromEntries(
    catalogueOf(fields)
      .all('deal')
      .map((field) => [field.key, nameOfField(field)]),
  );
/** What is known of an application that a line opened: its own fields, and those of its opening where it has none of that name. */
function applicationShape({ fields }: Pick<Library, 'fields'>): ResultShape {
  const catalogue = catalogueOf(fields);
  const ofOpening = catalogue.all('opening').filter((field) => !field.isStandard);
  return Object.fromEntries([...ofOpening, ...catalogue.all('application')].map((field) => [field.key, nameOfField(field)]));
}

function openDeal(found: RegExpExecArray, { library }: Ask): PhraseReading {
  const pipelines = thing(
    found[1],
    library.pipelines.map((pipeline) => pipeline.name),
    'pipeline',
  );
  if (!pipelines.ok) return refused(pipelines.why);
  const lines: string[] = [];
  for (const name of pipelines.names) {
    const stages = library.pipelines.find((pipeline) => pipeline.name === name)?.stages ?? [];
    const stage = found[2] ? thing(found[2], stages, `stage of ${name}`) : { ok: true as const, names: stages.slice(0, 1) };
    if (!stage.ok) return refused(stage.why);
    lines.push(...stage.names.map((entry) => `open deal in ${quote(name)} at ${quote(entry)} as deal`));
  }
  return reading(...lines);
}
