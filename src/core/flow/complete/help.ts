import { catalogueOf, type Catalogue } from '../../fields';
import { FUNCTIONS } from '../../feel';
import type { Library } from '../meaning/library';
import { numberedLines, parseFlow, type Line } from '../syntax';
import { resultOf, verbs } from '../verbs';

/** What is known of the word at a place. */
export interface Help {
  readonly from: number;
  readonly to: number;
  readonly title: string;
  readonly says: string;
}

/** What stands at an offset of a flow's text, explained: a verb, a named thing, a field, a part of a result, a function. */
export function helpAt(text: string, at: number, library: Library): Help | undefined {
  const rowStart = text.lastIndexOf('\n', at - 1) + 1;
  const rowEnd = text.indexOf('\n', at);
  const row = text.slice(rowStart, rowEnd < 0 ? text.length : rowEnd);
  const place = at - rowStart;
  const found = inQuotes(row, place, library) ?? atVerb(row, place) ?? atWord(text, row, place, at, library);
  return found && { ...found, from: found.from + rowStart, to: found.to + rowStart };
}

function atVerb(row: string, place: number): Help | undefined {
  const lead = /^\s*(?:off:\s*)?/.exec(row)?.[0].length ?? 0;
  const words = row.slice(lead);
  const found = verbs()
    .filter(({ verb }) => words === verb || words.startsWith(`${verb} `))
    .sort((a, b) => b.verb.length - a.verb.length)[0];
  if (!found || place < lead || place > lead + found.verb.length) return undefined;
  return { from: lead, to: lead + found.verb.length, title: found.verb, says: found.help };
}

function inQuotes(row: string, place: number, library: Library): Help | undefined {
  for (const quoted of row.matchAll(/"((?:[^"\\]|\\.)*)"/g)) {
    const [from, to] = [quoted.index, quoted.index + quoted[0].length];
    if (place < from || place > to) continue;
    const known = describeThing((quoted[1] ?? '').replace(/\\(.)/g, '$1'), row.slice(0, from), library);
    return known && { from, to, ...known };
  }
  return undefined;
}

const list = (words: readonly string[]): string => words.join(', ');

/** A named thing in a few words. Two things of different kinds may have one name: the words before it tell them apart. */
function describeThing(name: string, before: string, library: Library): { readonly title: string; readonly says: string } | undefined {
  const card = library.scorecards.find((entry) => entry.name === name);
  if (card && /\bscore\b/.test(before))
    return {
      title: `scorecard ${name}`,
      says: `${list(card.criteria.map((entry) => entry.text))} · bands ${list(card.bands.map((band) => `${band.name} from ${band.from}`))}`,
    };
  const plan = library.plans.find((entry) => entry.name === name);
  if (plan && /\bfollow up\b/.test(before))
    return {
      title: `plan ${name}`,
      says: `${list(plan.touches.map((touch) => `day ${touch.day} “${touch.template}”`))} · from ${plan.mailbox}, ${plan.hours.from}–${plan.hours.to} the reader’s time`,
    };
  const template = library.templates.find((entry) => entry.name === name);
  if (template) return { title: `text ${name}`, says: `“${template.subject}”` };
  const chain = library.chains.find((entry) => entry.name === name);
  if (chain)
    return {
      title: `lookup chain ${name}`,
      says: list(chain.providers.map((provider) => `${provider.name} at ${(provider.priceMicro / 1e6).toFixed(3)} €`)),
    };
  const pipeline = library.pipelines.find((entry) => entry.name === name);
  if (pipeline) return { title: `pipeline ${name}`, says: list(pipeline.stages) };
  const staged = library.pipelines.filter((entry) => entry.stages.includes(name));
  if (staged.length > 0) return { title: `stage ${name}`, says: `of ${list(staged.map((entry) => entry.name))}` };
  if (library.teams.includes(name)) return { title: `team ${name}`, says: 'asked and assigned in turn' };
  if (library.people.includes(name)) return { title: name, says: 'a colleague' };
  if (library.webhooks.includes(name)) return { title: `webhook ${name}`, says: 'told by a signed POST' };
  if (library.connections.includes(name)) return { title: `mailbox ${name}`, says: 'what this flow sends from' };
  const intake = library.intakes.find((entry) => entry.name === name);
  return intake && { title: `${intake.kind} ${name}`, says: 'an intake' };
}

const TYPE_WORDS: Readonly<Record<string, string>> = {
  boolean: 'yes or no',
  string: 'text',
  number: 'a number',
  date: 'a date',
  any: 'anything',
  list: 'a list',
};

function atWord(text: string, row: string, place: number, at: number, library: Library): Help | undefined {
  for (const word of row.matchAll(/[a-z_][a-z0-9_]*(?:\.[a-z_][a-z0-9_]*)*/gi)) {
    const [from, to] = [word.index, word.index + word[0].length];
    if (place < from || place > to) continue;
    const known =
      describeField(catalogueOf(library.fields), word[0], /^about deal\b/m.test(text)) ??
      describeResult(word[0], text, at, library) ??
      describeFunction(word[0]);
    return known && { from, to, ...known };
  }
  return undefined;
}

function describeField(fields: Catalogue, path: string, aboutDeal: boolean): { readonly title: string; readonly says: string } | undefined {
  const [first = '', second] = path.split('.');
  const kind = second === undefined ? (aboutDeal ? 'deal' : 'person') : first;
  if (kind !== 'person' && kind !== 'company' && kind !== 'deal') return undefined;
  const field = fields.of(kind, second ?? first);
  if (!field) return undefined;
  const unit = field.unit ? ` in ${field.unit}` : '';
  return {
    title: `${kind} · ${field.label}`,
    says: [
      `${field.type}${unit}${field.sample === '' ? '' : `, like ${field.sample}${field.unit ? ` ${field.unit}` : ''}`}`,
      ...(field.options && field.options.length > 0 ? [list(field.options)] : []),
      ...(field.isComputed ? ['worked out, never written'] : []),
      ...(field.isRetired ? ['retired'] : []),
    ].join(' · '),
  };
}

function describeResult(
  path: string,
  text: string,
  at: number,
  library: Library,
): { readonly title: string; readonly says: string } | undefined {
  const [name = '', part] = path.split('.');
  const makers = numberedLines(parseFlow(text).tree.lines).filter(
    ({ line }: { readonly line: Line }) => line.from <= at && resultOf(line.step, library)?.name === name,
  );
  const maker = makers.at(-1);
  if (!maker) return undefined;
  const shape = resultOf(maker.line.step, library)?.shape ?? {};
  const from = `of line ${maker.number}, ${maker.line.step.verb}`;
  if (part === undefined) return { title: name, says: `${from}: ${list(Object.keys(shape))}` };
  const type = shape[part]?.type;
  return type === undefined ? undefined : { title: `${name} · ${part}`, says: `${TYPE_WORDS[type] ?? type} ${from}` };
}

function describeFunction(name: string): { readonly title: string; readonly says: string } | undefined {
  const known = FUNCTIONS[name];
  return (
    known && {
      title: `${name}( )`,
      says: `takes ${list(known.takes.map((type) => TYPE_WORDS[type] ?? type))}${known.many ? ', as many as there are' : ''}; gives ${TYPE_WORDS[known.gives] ?? known.gives}`,
    }
  );
}
