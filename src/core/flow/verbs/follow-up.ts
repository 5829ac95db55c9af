import { z } from 'zod';
import { approved, exists, needsEmail, sends, type Check, type Say, type Way } from '../meaning/way';
import { deed, named, plain } from '../parts/parts';
import { AMOUNT, reading, refused, withThing, type Ask, type PhraseReading } from '../parts/phrasing';
import { digits } from '../parts/names';
import { refuse } from '../tree/clauses';
import { quote } from '../tree/notation';
import { channelOf, isByHand, textsOf, type FollowUpPlan, type MessageTemplate } from '../../writer';
import type { Library } from '../meaning/library';
import type { Named } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface FollowUp {
  readonly verb: 'follow up';
  readonly plan: Named;
}
declare module '../tree/tree' {
  interface Steps {
    readonly 'follow up': FollowUp;
  }
}

export const followUp: VerbOf<FollowUp> = {
  verb: 'follow up',
  help: 'Sends the touches of a plan on its days, and stops by itself when an answer comes.',
  begins: [['follow up', 'follow up with "', 'a plan']],
  names: [[/\bfollow up with $/, (library) => library.plans.map((plan) => plan.name), 'plan']],
  speaks: [],
  phrases: [
    [
      /^(?:follow up|follow them up|send|use|run)(?: them)?(?: with| by)?(?: the)? plan (.+)$|^follow up with (.+)$/,
      (found, ask) =>
        withThing(
          found[1] ?? found[2],
          ask.library.plans.map((plan) => plan.name),
          'plan',
          (name) => `follow up with ${name}`,
        ),
    ],
    [new RegExp(`^(?:write|follow up|send|mail)(?: to)?(?: them| everyone| it)?,? ${AMOUNT} (?:times|mails|messages|touches)`), times],
  ],
  samples: ['write email "{text}" as f%\nask "{team}" to approve f%\nfollow up with "{plan}"'],

  read(row, clauses) {
    refuse(clauses, 'follow up');
    if (!row.want('with', 'follow up with "First contact"')) return undefined;
    const plan = row.wantName('the plan');
    return plan && { verb: 'follow up', plan };
  },
  print: ({ plan }) => [`follow up with ${quote(plan.text)}`],
  check(step, way, check, say, line) {
    const { plans, templates } = check.library;
    exists(
      step.plan,
      plans.map((plan) => plan.name),
      'plan',
      say,
    );
    for (const touch of plans.find((entry) => entry.name === step.plan.text)?.touches ?? [])
      for (const text of textsOf(touch))
        if (!templates.some((template) => template.name === text))
          say(step.plan, 'unknown thing', `the plan’s touch on day ${touch.day} uses the text ${quote(text)}, which does not exist`);
    approved(undefined, step.plan, way, check, say, line);
    needsEmail(step.plan, way, check, say, line);
    approvedLeaves(step, way, check, say);
    // The approved message is the plan's first touch: an answer to it may be waited for below.
    for (const name of way.asked.keys()) way.sent.set(name, true);
    sends(way, check, say, line);
  },
  result: () => undefined,
  say: ({ plan }) => [deed('Follow up'), plain('with plan'), named(plan, 'plan')],
  json: () => z.strictObject({ verb: z.literal('follow up'), plan: shapes.name }),
  compiles: () => ({}),
  weighs: LETS_PASS,
  sends: ({ plan }, library) => mailsOf(plan.text, library).map((touch) => touch.day),
};

/** The touches of a plan that are mails: the others are done by people. */
function mailsOf(name: string, { plans, templates }: Library): FollowUpPlan['touches'] {
  const isMail = (text: MessageTemplate | undefined): boolean => text === undefined || !isByHand(channelOf(text));
  const touches = plans.find((plan) => plan.name === name)?.touches ?? [];
  return touches.filter((touch) => isMail(templates.find((text) => text.name === touch.template)));
}

/** What was approved must be what leaves: a plan that sends other texts would leave the approved message behind. */
function approvedLeaves({ plan }: FollowUp, way: Way, check: Check, say: Say): void {
  const found = check.library.plans.find((entry) => entry.name === plan.text);
  const texts = found && mailsOf(found.name, check.library).map((touch) => touch.template);
  const waiting = [...way.asked.keys()].filter((name) => !way.sent.has(name) && way.results.get(name)?.body);
  const [name] = waiting;
  if (!texts || name === undefined || waiting.some((message) => texts.includes(way.writtenFrom.get(message) ?? ''))) return;
  const text = way.writtenFrom.get(name);
  const other = check.library.plans.find((entry) => entry.touches.some((touch) => touch.template === text));
  say(
    plan,
    'never leaves',
    `what is approved, ${name}${text === undefined ? '' : ` from ${quote(text)}`}, would never leave: this plan sends ${texts.map(quote).join(', ')}`,
    other && { label: `use the plan ${quote(other.name)}`, edits: [{ from: plan.from, to: plan.to, insert: quote(other.name) }] },
  );
}

/** “three times”: plans with that many mails. */
function times(found: RegExpExecArray, { library }: Ask): PhraseReading {
  const count = Number(digits(found[1] ?? ''));
  const plans = library.plans.filter((plan) => mailsOf(plan.name, library).length === count);
  if (plans.length === 0) return refused(`no plan has ${count} mails: plans are made under Messages`);
  return reading(...plans.map((plan) => `follow up with ${quote(plan.name)}`));
}
