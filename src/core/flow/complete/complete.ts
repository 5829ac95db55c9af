import { catalogueOf, type Field } from '../../fields';
import { FUNCTIONS } from '../../feel';
import { ASKABLE_ROLES, DOCUMENTS, ENTRY, entryOf, resultOf, type Library } from '../check';
import { numberedLines, parseFlow } from '../syntax';

export interface CompletionOption {
  readonly label: string;
  /** replaces the text from `Completion.from` to the caret */
  readonly insert: string;
  /** one word or a sample value beside it */
  readonly detail: string;
}

export interface Completion {
  readonly from: number;
  readonly options: readonly CompletionOption[];
}

/** How a line of each verb begins; the caret is left where something must be named. */
const STARTS: readonly (readonly [label: string, insert: string, detail: string])[] = [
  ['take in', 'take in from file "', 'where records enter'],
  ['keep', 'keep when ', 'only these go on'],
  ['match', 'match company, person', 'against the CRM'],
  ['read', 'read company from website as research', 'its site'],
  ['score', 'score company with "', 'with a scorecard'],
  ['split', 'split', 'several ways'],
  ['when', 'when ', 'one way of a split'],
  ['else', 'else', 'all others'],
  ['look up', 'look up email with "', 'paid providers'],
  ['open', 'open deal in "', 'a deal'],
  ['assign', 'assign in turn among "', 'a team'],
  ['set', 'set ', 'a field'],
  ['note', 'note "', 'on the person'],
  ['write', 'write email "', 'from a text'],
  ['ask', 'ask "', 'a person'],
  ['send', 'send ', 'one message'],
  ['follow up', 'follow up with "', 'a plan'],
  ['wait', 'wait 3 days', 'a while'],
  ['wait for reply to', 'wait for reply to ', 'for an answer'],
  ['wait until', 'wait until 09:00 on a working day', 'for a time of day'],
  ['gather', 'gather 50 or 1 day', 'many for one line'],
  ['sort', 'sort ', 'a text by labels'],
  ['pick out', 'pick out from ', 'answers from a text'],
  ['pick out cv', 'pick out cv from entry.', 'what a CV holds'],
  ['pick out brief', 'pick out brief from entry.', 'what a brief asks for'],
  ['pick out call', 'pick out call from entry.', 'what a call was about'],
  ['open application', 'open application for "', 'of a candidate'],
  ['move', 'move deal to "', 'a deal to a stage'],
  ['tell', 'tell owner "', 'a colleague'],
  ['tell its owner', 'tell its owner "', 'whose record it is'],
  ['call', 'call with "', 'by telephone'],
  ['book', 'book meeting with "', 'a slot'],
  ['prepare', 'prepare "', 'a dossier'],
  ['hand over', 'hand over to "', 'to a webhook'],
  ['take in from clock', 'take in from clock at 08:00 on working days', 'records that are due'],
  ['take in from clock every', 'take in from clock every 30 minutes from 08:00 to 18:00 on working days', 'records that are due'],
  ['take in from change', 'take in from change of ', 'records that change'],
  ['take in from mailbox', 'take in from mailbox "', 'mails'],
  ['take in from calendar', 'take in from calendar "', 'booked meetings'],
  ['stop', 'stop "', 'the trip'],
];

/** Which names fit after the words before an open quote; the first pattern that fits decides. */
const NAMES: readonly (readonly [before: RegExp, names: (library: Library, before: string) => readonly string[], what: string])[] = [
  [/\bscore\b.*\bwith $/, (library) => library.scorecards.map((card) => card.name), 'scorecard'],
  [/\blook up\b.*\bwith $/, (library) => library.chains.map((chain) => chain.name), 'lookup chain'],
  [/\bfollow up with $/, (library) => library.plans.map((plan) => plan.name), 'plan'],
  [/\bopen deal in ".*" at $/, (library, before) => stagesAfter(library, before), 'stage'],
  [/\bopen deal in $/, (library) => library.pipelines.map((pipeline) => pipeline.name), 'pipeline'],
  [/\bopen application for ".*" at $/, (library, before) => stagesAfter(library, before), 'stage'],
  [/\bopen application for $/, (library) => library.openings.map((opening) => opening.name), 'opening'],
  [/\bmove \w+ to $/, (library) => [...new Set([...library.pipelines, ...library.openings].flatMap((entry) => entry.stages))], 'stage'],
  [/^prepare $/, () => DOCUMENTS, 'document'],
  [/^tell $/, (library) => [...library.people, ...library.teams, ...library.webhooks], 'person, team or webhook'],
  [/\bhand over to $/, (library) => library.webhooks, 'webhook'],
  [/\bamong $/, (library) => library.teams, 'team'],
  [/\bask $/, (library) => [...library.teams, ...ASKABLE_ROLES], 'team or role'],
  [/\bwrite email $/, (library) => library.templates.map((template) => template.name), 'text'],
  [/\btake in from (\w+) $/, (library, before) => intakesAfter(library, before), 'intake'],
  [/\buses connection \w+ = $/, (library) => library.connections, 'connection'],
];

function stagesAfter(library: Library, before: string): readonly string[] {
  const [, what, name] = /open (deal in|application for) "([^"]*)"/.exec(before) ?? [];
  return (what === 'deal in' ? library.pipelines : library.openings).find((entry) => entry.name === name)?.stages ?? [];
}

function intakesAfter(library: Library, before: string): readonly string[] {
  const kind = /take in from (\w+) $/.exec(before)?.[1];
  return library.intakes.filter((intake) => intake.kind === kind).map((intake) => intake.name);
}

/** No more can be looked over. */
const MOST = 40;

/** Options at an offset of the text, at most forty, or undefined when nothing certain can be offered. */
export function completeAt(text: string, at: number, library: Library): Completion | undefined {
  const rowStart = text.lastIndexOf('\n', at - 1) + 1;
  const row = text.slice(rowStart, at).replace(/^\s*(?:off:\s*)?/, '');
  const quoteAt = openQuote(row);
  const found =
    quoteAt >= 0 ? inQuotes(row, quoteAt, at, library) : (atStart(row, at) ?? inExpression(library, text.slice(0, rowStart), row, at));
  return found && found.options.length > 0 ? { from: found.from, options: found.options.slice(0, MOST) } : undefined;
}

/** Where the quote that is still open begins, or -1. */
function openQuote(row: string): number {
  let open = -1;
  for (let i = 0; i < row.length; i++) if (row[i] === '"' && row[i - 1] !== '\\') open = open < 0 ? i : -1;
  return open;
}

function inQuotes(row: string, quoteAt: number, at: number, library: Library): Completion | undefined {
  const before = row.slice(0, quoteAt);
  const typed = row.slice(quoteAt + 1).toLowerCase();
  const rule = NAMES.find(([pattern]) => pattern.test(before));
  if (!rule) return undefined;
  const options = rule[1](library, before).filter((name) => name.toLowerCase().includes(typed));
  return { from: at - typed.length, options: options.map((name) => ({ label: name, insert: `${name}"`, detail: rule[2] })) };
}

function atStart(row: string, at: number): Completion | undefined {
  if (!/^[a-z ]*$/i.test(row)) return undefined;
  const typed = row.toLowerCase();
  const options = STARTS.filter(([label, insert]) => label.startsWith(typed) && insert !== row);
  return options.length === 0
    ? undefined
    : { from: at - row.length, options: options.map(([label, insert, detail]) => ({ label, insert, detail })) };
}

const option = (field: Field, name: string): CompletionOption => ({
  label: name,
  insert: name,
  detail: field.sample === '' ? field.label : `${field.label}, like ${field.sample}${field.unit ? ` ${field.unit}` : ''}`,
});

/** Parts of the results that the lines above have named. */
function resultsOf(above: string, library: Library): readonly CompletionOption[] {
  return numberedLines(parseFlow(above).tree.lines).flatMap(({ line }) => {
    const entry = entryOf(line.step, library);
    const result = entry ? { name: ENTRY, shape: entry } : resultOf(line.step, library);
    return Object.keys(result?.shape ?? {}).map((part) => {
      const name = `${result?.name ?? ''}.${part}`;
      return { label: name, insert: name, detail: `of ${line.step.verb} above` };
    });
  });
}

function inExpression(library: Library, above: string, row: string, at: number): Completion | undefined {
  if (
    !/^(?:keep|when|set|note|else set|once per|wait for|wait until|sort|pick out (?:\w+ )?from|tell (?:\w+|"[^"]*")(?: by email)? )/.test(
      row,
    )
  )
    return undefined;
  const about = /^about (\w+)/m.exec(above)?.[1];
  const typed = /[a-z_][a-z0-9_.]{0,200}$/i.exec(row)?.[0] ?? '';
  const fields = catalogueOf(library.fields);
  const all: CompletionOption[] = [
    ...resultsOf(above, library),
    ...(about === 'deal'
      ? [
          ...fields.all('deal').map((field) => option(field, field.key)),
          ...fields.all('person').map((field) => option(field, `person.${field.key}`)),
        ]
      : fields.all('person').map((field) => option(field, field.key))),
    ...fields.all('company').map((field) => option(field, `company.${field.key}`)),
    ...Object.keys(FUNCTIONS).map((name) => ({ label: `${name}( )`, insert: `${name}(`, detail: 'function' })),
  ];
  return { from: at - typed.length, options: all.filter(({ label }) => label.startsWith(typed) && label !== typed) };
}
