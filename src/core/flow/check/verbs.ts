import { durationMs } from '../../base';
import { catalogueOf, speaksOf, type Field } from '../../fields';
import { DOCUMENT_KINDS, DOCUMENT_PARTS, isDocumentKind, ITS_OWNER, quote, SCREENS, type Line, type Verb, type Word } from '../syntax';
import { ASKABLE_ROLES, DOCUMENTS } from './known';
import {
  approved,
  assigned,
  emailPath,
  ensures,
  exists,
  feel,
  fieldAt,
  needs,
  needsEmail,
  oneOf,
  sends,
  type Check,
  type CheckStep,
  type Say,
  type Way,
} from './way';

const isNoneThatChanges = (field: Field | undefined): boolean => !field || field.isComputed === true;

const isApplication = (name: string, way: Way): boolean => way.results.get(name)?.opening !== undefined;

/** The trip's own deal, or a deal or application opened above under that name. */
const isDeal = (name: string, way: Way, check: Check): boolean =>
  (check.about === 'deal' && name === 'deal') || way.results.get(name)?.stage !== undefined;

function twice(ids: readonly Word[], say: Say): void {
  const seen = new Set<string>();
  for (const id of ids) {
    if (seen.has(id.text)) say(id, 'name twice', `“${id.text}” stands here twice`);
    seen.add(id.text);
  }
}

function noLimit(line: Line, say: Say): void {
  const at = line.head.to;
  say(
    line.head,
    'no limit',
    'this may wait for ever: say how long at most',
    { label: 'at most 8 days', edits: [{ from: at, to: at, insert: ', at most 8 days' }] },
    'warning',
  );
}

/** Keyed by verb: a new verb does not compile until it is checked. */
/** Where a company and a person can be read about. */
const COMPANY_PLACES = ['website', 'news', 'register', 'people', 'jobs'];
/** Doors by which records come in. */
const LEAST_EVERY_MS = durationMs({ amount: 5, unit: 'minute' });
const MOST_EVERY_MS = durationMs({ amount: 12, unit: 'hour' });
const INTAKES = ['file', 'form', 'webhook', 'mailbox', 'calendar', 'hand', 'clock', 'change'];
const MOST_WITHIN_MS = 4 * 3_600_000;
const PERSON_PLACES = ['people', 'news'];

export const CHECKS: { readonly [V in Exclude<Verb, 'unknown' | 'split'>]: CheckStep<V> } = {
  'take in': (step, way, check, say) => {
    oneOf(step.from, INTAKES, 'an intake', say);
    const fields = catalogueOf(check.library.fields);
    for (const field of step.change?.fields ?? [])
      if (field.text !== 'record' && isNoneThatChanges(fieldAt(fields, check.about, field.text)))
        say(field, 'unknown name', `“${field.text}” is not a field that can change here: name fields, or record for new ones`);
    if (step.change?.when) feel(step.change.when, 'boolean', way, check, say);
    if (step.clock?.within && durationMs(step.clock.within.duration) > MOST_WITHIN_MS)
      say(step.clock.within, 'wrong place', 'the clock strikes within at most 4 hours');
    if (step.clock?.every) {
      const every = durationMs(step.clock.every.duration);
      if (every < LEAST_EVERY_MS || every > MOST_EVERY_MS)
        say(step.clock.every, 'wrong place', 'the clock strikes every 5 minutes at the most, and every 12 hours at the least');
    }
    if (step.clock?.until && step.clock.until.minute <= step.clock.time.minute)
      say(step.clock.until, 'wrong place', 'this is before the first stroke of the day');
    if (step.clock?.when) feel(step.clock.when, 'boolean', way, check, say);
    else if (step.clock) say(step.clock, 'wrong place', 'say which records are due, below: when quiet_days in [4, 8, 14]');
    if (step.name)
      exists(
        step.name,
        check.library.intakes.filter((intake) => intake.kind === step.from.text).map((intake) => intake.name),
        step.from.text,
        say,
      );
    if (step.oncePer && !fieldAt(fields, check.about, step.oncePer.text))
      say(step.oncePer, 'unknown name', `“${step.oncePer.text}” is not a field`);
  },
  keep: (step, way, check, say) => {
    feel(step.when, 'boolean', way, check, say);
    for (const path of ensures(step.when.parsed.expr)) way.ensured.set(path, true);
    for (const screen of step.unless ?? []) oneOf(screen, SCREENS, 'what can be screened out', say);
    if (step.otherwise) assigned(step.otherwise, way, check, say);
  },
  match: (step, _way, _check, say) => {
    for (const target of step.targets) oneOf(target, ['person', 'company'], 'what can be matched', say);
    for (const bar of [step.askAbove, step.sameAbove])
      if (bar && (bar.value < 0 || bar.value > 1)) say(bar, 'bars', 'a bar lies between 0 and 1');
    if (step.askAbove && step.sameAbove && step.askAbove.value > step.sameAbove.value)
      say(step.askAbove, 'bars', 'the bar for asking must lie below the bar for “same”');
  },
  read: (step, way, check, say, line) => {
    oneOf(step.target, ['company', 'person'], 'what can be read about', say);
    const places = step.target.text === 'person' ? PERSON_PLACES : COMPANY_PLACES;
    for (const place of step.places) oneOf(place, places, 'a place to read', say);
    // To look for what is new, nothing needs to be asked.
    if (step.questions.length === 0 && !step.noOlder)
      say(line.head, 'wrong place', 'ask at least one question below: vans: number "How many vans …?"');
    const seen = new Set<string>(['changes', 'news']);
    for (const { id } of step.questions) {
      if (id.text === 'changes' || id.text === 'news')
        say(id, 'name twice', `“${id.text}” is what every reading says is new: call the question otherwise`);
      else if (seen.has(id.text)) say(id, 'name twice', `“${id.text}” is asked twice`);
      seen.add(id.text);
    }
    // With other places to look at, a missing site is no fault.
    if (step.places.every((place) => place.text === 'website'))
      needs('company.website', 'the company’s site', line.head, way, check, say, line);
  },
  score: (step, _way, check, say) => {
    oneOf(step.target, ['company', 'person'], 'what can be scored', say);
    exists(
      step.scorecard,
      check.library.scorecards.map((card) => card.name),
      'scorecard',
      say,
    );
    const card = check.library.scorecards.find((entry) => entry.name === step.scorecard.text);
    for (const field of check.library.fields)
      if (field.isProtected && card && speaksOf(JSON.stringify(card), field.key))
        say(step.scorecard, 'wrong place', `${quote(card.name)} speaks of “${field.label}”, which is protected: nobody is judged by it`);
  },
  'look up': (step, way, check, say) => {
    oneOf(step.field, [emailPath(check.about)], 'what can be looked up', say);
    exists(
      step.chain,
      check.library.chains.map((chain) => chain.name),
      'lookup chain',
      say,
    );
    way.ensured.set(step.field.text, true);
  },
  open: (step, _way, check, say) => {
    if (step.what === 'application') {
      const { openings } = check.library;
      exists(
        step.opening,
        openings.map((opening) => opening.name),
        'opening',
        say,
      );
      const opening = openings.find((entry) => entry.name === step.opening.text);
      if (opening) exists(step.stage, opening.stages, `stage of ${step.opening.text}`, say);
      return;
    }
    exists(
      step.pipeline,
      check.library.pipelines.map((pipeline) => pipeline.name),
      'pipeline',
      say,
    );
    const pipeline = check.library.pipelines.find((entry) => entry.name === step.pipeline.text);
    if (pipeline) exists(step.stage, pipeline.stages, `stage of ${step.pipeline.text}`, say);
  },
  assign: (step, way, check, say) => {
    exists(step.team, check.library.teams, 'team', say);
    if (!step.what) return;
    check.used.add(step.what.text);
    if (step.what.text !== 'person' && !isDeal(step.what.text, way, check))
      say(step.what, 'unknown name', `“${step.what.text}” is no deal or application opened above: write open deal … as ${step.what.text}`);
  },
  set: (step, way, check, say) => {
    assigned(step.assignment, way, check, say);
  },
  note: (step, way, check, say) => {
    feel(step.text, 'string', way, check, say);
  },
  write: (step, way, check, say, line) => {
    oneOf(step.channel, ['email'], 'a channel', say);
    exists(
      step.template,
      check.library.templates.map((template) => template.name),
      'text',
      say,
    );
    needsEmail(step.channel, way, check, say, line);
  },
  ask: (step, way, check, say) => {
    way.sentJustNow = false;
    exists(step.who, [...check.library.teams, ...ASKABLE_ROLES], 'team or role', say);
    check.used.add(step.message.text);
    way.asked.set(step.message.text, true);
    if (!way.results.get(step.message.text)?.body)
      say(step.message, 'unknown name', `“${step.message.text}” is not a message written above: write email "…" as ${step.message.text}`);
    if (step.otherwise?.does === 'tell') oneOf(step.otherwise.who, ASKABLE_ROLES, 'whom to tell', say);
    if (step.otherwise && !step.within) say(step.otherwise.text, 'wrong place', '“otherwise” needs a limit: within 2 days');
  },
  send: (step, way, check, say, line) => {
    check.used.add(step.message.text);
    if (!way.results.get(step.message.text)?.body)
      say(step.message, 'unknown name', `“${step.message.text}” is not a message written above`);
    approved(step.message.text, step.message, way, check, say, line);
    sends(way, check, say, line);
    way.sent.set(step.message.text, true);
  },
  'follow up': (step, way, check, say, line) => {
    exists(
      step.plan,
      check.library.plans.map((plan) => plan.name),
      'plan',
      say,
    );
    const plan = check.library.plans.find((entry) => entry.name === step.plan.text);
    for (const touch of plan?.touches ?? [])
      if (!check.library.templates.some((template) => template.name === touch.template))
        say(
          step.plan,
          'unknown thing',
          `the plan’s touch on day ${touch.day} uses the text ${quote(touch.template)}, which does not exist`,
        );
    approved(undefined, step.plan, way, check, say, line);
    needsEmail(step.plan, way, check, say, line);
    // The approved message is the plan's first touch: an answer to it may be waited for below.
    for (const name of way.asked.keys()) way.sent.set(name, true);
    sends(way, check, say, line);
  },
  wait: (step, way, check, say, line) => {
    way.sentJustNow = false;
    const until = step.for;
    if (until.kind === 'date') feel(until.date, 'date', way, check, say);
    if (until.kind === 'condition') {
      feel(until.when, 'boolean', way, check, say);
      if (!until.atMost) noLimit(line, say);
    }
    if (until.kind !== 'reply') return;
    check.used.add(until.message.text);
    if (!way.sent.has(until.message.text))
      say(until.message, 'unknown name', `“${until.message.text}” is not a message sent above: write send ${until.message.text}`);
    if (!until.atMost) noLimit(line, say);
  },
  gather: (step, way, _check, say) => {
    if (step.count.value < 2 || !Number.isInteger(step.count.value)) say(step.count, 'wrong place', 'gather at least 2');
    way.gathered = true;
  },
  sort: (step, way, check, say, line) => {
    feel(step.text, 'string', way, check, say);
    if (step.labels.length < 2)
      say(line.head, 'wrong place', 'name at least two labels below: price: "finds it too dear" like "over our budget"');
    twice(
      step.labels.map((label) => label.name),
      say,
    );
  },
  'pick out': (step, way, check, say, line) => {
    feel(step.text, 'string', way, check, say);
    if (step.document) oneOf(step.document, DOCUMENT_KINDS, 'a kind of document', say);
    else if (step.questions.length === 0)
      say(line.head, 'wrong place', 'say what to pick out below: budget: number "What is their budget?"');
    const kind = step.document?.text ?? '';
    for (const { id } of step.questions)
      if (isDocumentKind(kind) && id.text in DOCUMENT_PARTS[kind])
        say(id, 'name twice', `“${id.text}” is picked out of every ${kind} already`);
    twice(
      step.questions.map((question) => question.id),
      say,
    );
  },
  move: (step, way, check, say) => {
    check.used.add(step.what.text);
    if (!isDeal(step.what.text, way, check))
      say(step.what, 'unknown name', `“${step.what.text}” is no deal or application opened above: write open deal … as ${step.what.text}`);
    const among = isApplication(step.what.text, way) ? check.library.openings : check.library.pipelines;
    exists(step.stage, [...new Set(among.flatMap((entry) => entry.stages))], 'stage', say);
  },
  tell: (step, way, check, say) => {
    feel(step.text, 'string', way, check, say);
    if (step.paper) {
      check.used.add(step.paper.text);
      if (way.results.get(step.paper.text)?.address === undefined)
        say(
          step.paper,
          'unknown name',
          `“${step.paper.text}” is no document prepared above: write prepare "Dossier" as ${step.paper.text}`,
        );
      else if (!step.byEmail) say(step.paper, 'wrong place', 'a document goes along by e-mail: write tell … by email');
    }
    if (step.who.kind === 'role') {
      oneOf(step.who.name, [...ASKABLE_ROLES, ITS_OWNER], 'whom to tell', say);
      return;
    }
    const { people, teams, webhooks } = check.library;
    exists(step.who.name, [...people, ...teams, ...webhooks], 'person, team or webhook', say);
    if (step.byEmail && webhooks.includes(step.who.name.text))
      say(step.who.name, 'wrong place', 'a webhook is told by webhook, not by email');
  },
  'hand over': (step, _way, check, say) => {
    exists(step.to, check.library.webhooks, 'webhook', say);
    twice(
      (step.answer?.parts ?? []).map((part) => part.id),
      say,
    );
  },
  call: (_step, _way, _check, say, line) => {
    say(line.head, 'not connected', 'no telephone is connected to this workspace, so nobody can be called');
  },
  book: (_step, _way, _check, say, line) => {
    say(line.head, 'not connected', 'no calendar is connected to this workspace, so no meeting can be booked');
  },
  prepare: (step, _way, _check, say) => {
    exists(step.document, DOCUMENTS, 'document', say);
  },
  stop: (_step, way) => {
    way.stopped = true;
  },
};
