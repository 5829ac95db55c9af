import { fold, plural } from '../base';
import { catalogueOf, speaksOf, type Catalogue } from '../fields';
import { feelPaths, parseFeel } from '../feel';
import { dealShape, readCondition, type Library, type Pipeline, type ResultShape } from '../flow/check';
import type { LookupChain } from '../lookup';
import type { Scorecard } from '../score';
import {
  channelOf,
  isByHand,
  slotsIn,
  type Channel,
  type FollowUpPlan,
  type LinePattern,
  type MessageTemplate,
  type Wording,
} from '../writer';
import { claimsIn, isObjection, isOtherKind, type AgreedAnswer, type Statement } from '../answers';
import type { Thing } from './thing';

/** What is wrong with a thing, and where: `at` is the way to the part, as `criteria.2.levels.0.when`. */
export interface ThingProblem {
  readonly at: string;
  readonly weight: 'error' | 'warning';
  readonly says: string;
}

const error = (at: string, says: string): ThingProblem => ({ at, weight: 'error', says });
const warning = (at: string, says: string): ThingProblem => ({ at, weight: 'warning', says });

/** Everything wrong with a thing among the other things there are. */
export function problemsOf(
  thing: Thing,
  library: Pick<Library, 'fields' | 'templates' | 'connections'> & {
    /** lookup services that are described here; left out: nothing is said of those that are not */
    readonly providers?: readonly string[];
  },
  statements: readonly Statement[] = [],
): readonly ThingProblem[] {
  const fields = catalogueOf(library.fields);
  switch (thing.kind) {
    case 'scorecard':
      return cardProblems(thing.body, fields);
    case 'template':
      return textProblems(thing.body, fields, statements);
    case 'plan':
      return planProblems(thing.body, library);
    case 'pipeline':
      return pipelineProblems(thing.body);
    case 'chain':
      return chainProblems(thing.body, library.providers);
    case 'answer':
      return answerProblems(thing.body, fields, statements);
  }
}

function chainProblems({ field, providers }: LookupChain, described: readonly string[] | undefined): readonly ThingProblem[] {
  const out: ThingProblem[] = [];
  if (field !== 'email') out.push(error('field', 'chains look up the e-mail'));
  providers.forEach((provider, i) => {
    if (providers.findIndex((other) => other.name === provider.name) < i)
      out.push(error(`providers.${i}.name`, `“${provider.name}” is asked twice`));
    if (described && !described.includes(provider.name))
      out.push(
        warning(
          `providers.${i}.name`,
          `no connection is described for “${provider.name}”: it is asked where this installation was told to when it started`,
        ),
      );
    if (provider.dayBudgetMicro !== undefined && provider.dayBudgetMicro < provider.priceMicro)
      out.push(error(`providers.${i}.dayBudgetMicro`, 'less than one answer costs: it would never be asked'));
  });
  return out;
}

function answerProblems(answer: AgreedAnswer, fields: Catalogue, statements: readonly Statement[]): readonly ThingProblem[] {
  const out: ThingProblem[] = [];
  if (answer.when.trim() !== '') {
    const read = readCondition(answer.when, 'person', fields);
    if (!read.ok) out.push(error('when', read.problems[0]?.message ?? 'this is no condition'));
    for (const field of fields.own)
      if (field.isProtected && speaksOf(answer.when, field.key))
        out.push(error('when', `“${field.label}” is protected: nobody is judged by it`));
  }
  if (!isObjection(answer.about) && !isOtherKind(answer.about) && answer.asks.length === 0)
    out.push(warning('asks', 'say how people ask it: by the topic alone it is rarely found'));
  const seen = new Set<string>();
  answer.texts.forEach(({ language, body }, i) => {
    if (seen.has(language)) out.push(error(`texts.${i}.language`, 'there is a text in this language already'));
    seen.add(language);
    for (const slot of slotsIn(body)) {
      const says = slotProblem(slot, fields);
      if (says !== undefined) out.push(error(`texts.${i}.body`, says));
      if (slot === 'personal line') out.push(error(`texts.${i}.body`, 'an answer has no personal line: put the value itself in'));
    }
    for (const phrase of answer.notSay)
      if (fold(body).includes(fold(phrase))) out.push(error(`texts.${i}.body`, `it says “${phrase}”, which may not be said`));
    for (const claim of claimsIn(body, statements))
      if (!claim.coveredBy && slotsIn(claim.says).length === 0)
        out.push(
          error(`texts.${i}.body`, `“${claim.says}” says something of us (“${claim.because}”) that no statement of ours stands behind`),
        );
  });
  return out;
}

function pipelineProblems({ stages }: Pipeline): readonly ThingProblem[] {
  const out: ThingProblem[] = [];
  if (stages.length === 0) out.push(error('stages', 'a pipeline has a stage at least: deals begin there'));
  stages.forEach((stage, i) => {
    if (stage.trim() === '') out.push(error(`stages.${i}`, 'a stage has a name, by which flows speak of it'));
    else if (stages.findIndex((other) => other.trim().toLowerCase() === stage.trim().toLowerCase()) < i)
      out.push(error(`stages.${i}`, `“${stage}” stands twice`));
    else if (stage !== stage.trim()) out.push(error(`stages.${i}`, 'a space stands before or after the name'));
  });
  return out;
}

function cardProblems(card: Scorecard, fields: Catalogue): readonly ThingProblem[] {
  const out: ThingProblem[] = [];
  const condition = (at: string, when: string): void => {
    const read = readCondition(when, card.target, fields);
    if (!read.ok) {
      out.push(error(at, read.problems[0]?.message ?? 'this is no condition'));
      return;
    }
    // Trips are about people: a company's field alone would be looked for on the person.
    const bare = card.target === 'company' ? feelPaths(read.expr).find((path) => path.length === 1) : undefined;
    if (bare) out.push(error(at, `write company.${bare[0] ?? ''}: a name alone is the person’s`));
    for (const field of fields.own)
      if (field.isProtected && speaksOf(when, field.key)) out.push(error(at, `“${field.label}” is protected: nobody is judged by it`));
  };
  const ids = new Set<string>();
  card.criteria.forEach((criterion, i) => {
    if (ids.has(criterion.id)) out.push(error(`criteria.${i}.id`, `two criteria are kept as “${criterion.id}”`));
    ids.add(criterion.id);
    criterion.levels.forEach((level, k) => {
      condition(`criteria.${i}.levels.${k}.when`, level.when);
      const higher = criterion.levels[k - 1];
      if (higher && higher.points <= level.points)
        out.push(
          warning(
            `criteria.${i}.levels.${k}.points`,
            `the level above gives ${plural(higher.points, 'point')} and is asked first: this one never gives more`,
          ),
        );
    });
    const most = Math.max(...criterion.levels.map((level) => level.points));
    if (criterion.whenUnknown > most)
      out.push(warning(`criteria.${i}.whenUnknown`, `not knowing gives more than the best answer (${plural(most, 'point')})`));
  });
  card.disqualifiers.forEach((entry, i) => {
    condition(`disqualifiers.${i}.when`, entry.when);
  });
  const of = card.criteria.reduce((sum, criterion) => sum + Math.max(...criterion.levels.map((level) => level.points)), 0);
  card.bands.forEach((band, i) => {
    if (card.bands.findIndex((other) => other.name === band.name) < i) out.push(error(`bands.${i}.name`, `“${band.name}” stands twice`));
    if (band.name === 'out') out.push(error(`bands.${i}.name`, '“out” is the word for who is ruled out'));
    if (band.from > of) out.push(warning(`bands.${i}.from`, `nobody can reach ${band.from}: all criteria give ${of}`));
  });
  if (!card.bands.some((band) => band.from <= 0))
    out.push(warning('bands', 'whoever stays below the lowest bar gets its band all the same: begin it at 0'));
  return out;
}

const SENDER = new Set(['sender.name', 'sender.first_name']);
const PATTERN_SLOT = /\{([^{}]{0,200})\}/g;
const PATTERN_PARTS = new Set(['value', 'quote', 'day']);

function slotProblem(slot: string, fields: Catalogue): string | undefined {
  if (slot === 'personal line' || SENDER.has(slot)) return undefined;
  const [first = '', second, ...more] = slot.split('.');
  if (more.length > 0) return `“${slot}” has too many parts`;
  if (second === undefined)
    return fields.of('person', first)
      ? undefined
      : `no person has a field “${first}”${fields.of('company', first) ? `: write company.${first}` : ''}`;
  // The results of lines above (fit.band) are known to the flow, not to the text.
  if (first === 'company' || first === 'deal') return fields.of(first, second) ? undefined : `no ${first} has a field “${second}”`;
  if (first === 'sender') return `a sender has a name and a first_name, not “${second}”`;
  return undefined;
}

function textProblems(text: MessageTemplate, fields: Catalogue, statements: readonly Statement[]): readonly ThingProblem[] {
  const { personal } = text;
  const out = [...wordsProblems({ ...text, lines: personal?.lines ?? [] }, '', text, fields, statements)];
  if (personal?.required === true && !/\{personal line/.test(`${text.subject} ${text.body}`))
    out.push(warning('personal', 'the personal line must be there, and the text has no {personal line}'));
  personal?.fields.forEach((field, i) => {
    if (!fields.of('company', field) && !fields.of('person', field))
      out.push(error(`personal.fields.${i}`, `nothing has a field “${field}”`));
  });
  text.wordings?.forEach((wording, i) => {
    out.push(...whoseProblems(text, i, fields), ...wordsProblems(wording, `wordings.${i}.`, text, fields, statements));
  });
  return out;
}

/** What is wrong with one wording of a text: its slots, its claims, its sentences. */
function wordsProblems(
  words: Pick<Wording, 'subject' | 'body' | 'lines'>,
  place: string,
  { personal }: MessageTemplate,
  fields: Catalogue,
  statements: readonly Statement[],
): readonly ThingProblem[] {
  const out: ThingProblem[] = [];
  for (const part of ['subject', 'body'] as const) {
    const at = `${place}${part}`;
    for (const slot of slotsIn(words[part])) {
      const says = slotProblem(slot, fields);
      if (says !== undefined) out.push(error(at, says));
    }
    const left = words[part].replace(/\{[^{}]*\}/g, '').search(/[{}]/);
    if (left >= 0) out.push(error(at, 'a brace stands alone: a slot is written {first_name}'));
    for (const claim of claimsIn(words[part], statements))
      if (!claim.coveredBy)
        out.push(warning(at, `“${claim.says}” says something of us (“${claim.because}”) that no statement of ours stands behind`));
  }
  if (words.body.includes('{personal line}') && !personal)
    out.push(error(`${place}body`, 'a personal line is asked for, and nothing says what it may rest on'));
  words.lines.forEach((line, i) => {
    out.push(...patternProblems(line, place === '' ? `personal.lines.${i}` : `${place}lines.${i}`, personal?.fields ?? [], statements));
  });
  return out;
}

/** Whose wording it is: a condition that can be read, and nobody who gets another before. */
function whoseProblems(text: MessageTemplate, at: number, fields: Catalogue): readonly ThingProblem[] {
  const wording = text.wordings?.[at];
  if (!wording) return [];
  const out: ThingProblem[] = [];
  if (wording.when.trim() !== '') {
    const read = readCondition(wording.when, 'person', fields);
    if (!read.ok) out.push(error(`wordings.${at}.when`, read.problems[0]?.message ?? 'this is no condition'));
    for (const field of fields.own)
      if (field.isProtected && speaksOf(wording.when, field.key))
        out.push(error(`wordings.${at}.when`, `“${field.label}” is protected: nobody is judged by it`));
  }
  const same = (language: string): boolean => language.slice(0, 2).toLowerCase() === wording.language.slice(0, 2).toLowerCase();
  const others = (text.wordings ?? []).filter((other, i) => i !== at && same(other.language));
  if (wording.tried === true) {
    if (!same(text.language) && !others.some((other) => other.tried !== true))
      out.push(error(`wordings.${at}.language`, 'it is tried against nothing: there are no usual words in this language'));
    if (text.wordings?.slice(0, at).some((other) => other.tried === true && same(other.language)))
      out.push(error(`wordings.${at}.language`, 'another wording of this language is tried already: one after the other'));
    return out;
  }
  if (wording.when.trim() !== '') return out;
  if (same(text.language))
    out.push(error(`wordings.${at}.when`, 'who reads this language gets the text itself: say for whom this wording is, or try it'));
  else if (text.wordings?.slice(0, at).some((other) => other.when.trim() === '' && other.tried !== true && same(other.language)))
    out.push(error(`wordings.${at}.language`, 'there is a wording in this language already: say for whom this one is'));
  return out;
}

function patternProblems(
  line: LinePattern,
  at: string,
  allowed: readonly string[],
  statements: readonly Statement[],
): readonly ThingProblem[] {
  const out: ThingProblem[] = [];
  if (!allowed.includes(line.field))
    out.push(warning(`${at}.field`, `the personal line may not rest on “${line.field}”: this sentence is never used`));
  const slots = [...line.says.matchAll(PATTERN_SLOT)].map((slot) => slot[1] ?? '');
  for (const slot of slots)
    if (!PATTERN_PARTS.has(slot))
      out.push(error(`${at}.says`, `“{${slot}}” is not known here: a sentence holds {value}, {quote} or {day}`));
  if (slots.length === 0) out.push(warning(`${at}.says`, 'this sentence says nothing of its fact: put {value} or {quote} in'));
  if (line.when !== '') {
    const { expr, problems } = parseFeel(line.when);
    if (!expr) out.push(error(`${at}.when`, problems[0]?.message ?? 'this is no condition'));
  }
  for (const claim of claimsIn(line.says, statements))
    if (!claim.coveredBy)
      out.push(warning(`${at}.says`, `it says something of us (“${claim.because}”) that no statement of ours stands behind`));
  return out;
}

function planProblems(plan: FollowUpPlan, library: Pick<Library, 'templates' | 'connections' | 'fields'>): readonly ThingProblem[] {
  const out: ThingProblem[] = [];
  const channelAt = (name: string): Channel | undefined => {
    const text = library.templates.find((entry) => entry.name === name);
    return text && channelOf(text);
  };
  if (!library.connections.includes(plan.mailbox)) out.push(error('mailbox', `there is no mailbox “${plan.mailbox}”`));
  if (plan.hours.from >= plan.hours.to) out.push(error('hours', 'the window ends before it begins'));
  const [first] = plan.touches;
  if (first && isByHand(channelAt(first.template) ?? 'e-mail'))
    out.push(
      error(
        'touches.0.template',
        `the first touch is the message that is approved: it is a mail, not a ${channelAt(first.template) ?? ''}`,
      ),
    );
  plan.touches.forEach((touch, i) => {
    for (const [part, name] of [['template', touch.template] as const, ['otherwise', touch.otherwise] as const])
      if (name !== undefined && channelAt(name) === undefined) out.push(error(`touches.${i}.${part}`, `there is no text “${name}”`));
    if (touch.otherwise === touch.template)
      out.push(error(`touches.${i}.otherwise`, 'whom the text does not reach, itself does not either'));
    else if (touch.otherwise !== undefined && channelAt(touch.otherwise) === channelAt(touch.template))
      out.push(
        warning(
          `touches.${i}.otherwise`,
          `both are ${channelAt(touch.template) ?? 'mail'}: whom one does not reach, the other does not either`,
        ),
      );
    out.push(...touchCondition(touch.when, `touches.${i}.when`, library));
    const before = plan.touches[i - 1];
    if (before && touch.day < before.day)
      out.push(error(`touches.${i}.day`, `comes on working day ${touch.day}, and the touch before it on ${before.day}`));
    // A call may be made on the day of a mail, and two of the same kind on one day are one too many.
    else if (before?.day === touch.day && channelAt(before.template) === channelAt(touch.template))
      out.push(error(`touches.${i}.day`, `comes on working day ${touch.day}, as the touch before it does`));
    if (before?.template === touch.template) out.push(warning(`touches.${i}.template`, 'the same text twice running'));
  });
  return out;
}

/** What a touch's condition may look at besides the record: how often each was done in this conversation. */
const DONE: ResultShape = { mails: { type: 'number' }, calls: { type: 'number' }, talked: { type: 'number' } };

function touchCondition(when: string | undefined, at: string, library: Pick<Library, 'fields'>): readonly ThingProblem[] {
  if (when === undefined || when.trim() === '') return [];
  const fields = catalogueOf(library.fields);
  const read = readCondition(
    when,
    'person',
    fields,
    new Map([
      ['done', DONE],
      ['deal', dealShape(fields)],
    ]),
  );
  const out = read.ok ? [] : [error(at, read.problems[0]?.message ?? 'this is no condition')];
  for (const field of fields.own)
    if (field.isProtected && speaksOf(when, field.key)) out.push(error(at, `“${field.label}” is protected: nobody is judged by it`));
  return out;
}
