import { plural, type JsonObject } from '../../base';
import { channelOf, composeMessage, reachOf, type Composed } from '../../writer';
import type { Run } from '../run';
import type { AnswerOf } from './verb';

/** The message a text makes for this record; undefined when there is no such text any more. */
export function compose(answer: AnswerOf<'compose'>, templateName: string, run: Run): Composed | undefined {
  const template = run.plan.library.templates.find((entry) => entry.name === templateName);
  if (!template) return undefined;
  return composeMessage({
    template,
    scope: run.messageScope(answer.sender),
    recipient: { name: run.view.person.name, reach: reachOf(channelOf(template), run.view.person, run.view.company) },
    facts: answer.facts,
    recentLines: answer.recentLines,
    doNotContact: answer.doNotContact,
    ...(answer.neverSay && { neverSay: answer.neverSay }),
    seed: run.view.person.id,
  });
}

/** Why a message is held. */
export const heldBy = (composed: Composed): string =>
  composed.checks
    .filter((check) => !check.ok)
    .map((check) => check.says)
    .join('; ');

/** How long a message is, and in which language where that is not the one they read. */
export const sizeText = ({ body, fallback }: Composed): string =>
  plural(body.length, 'character') + (fallback === null ? '' : `, ${fallback}`);

/** A message as the journal shows it. */
export const shownMessage = (composed: Composed): JsonObject => ({
  subject: composed.subject,
  body: composed.body,
  personalLine: composed.personalLine,
  language: composed.language,
  fallback: composed.fallback,
  checks: composed.checks.map((check) => ({ ...check })),
  facts: composed.factsUsed.map((fact) => ({
    field: fact.field,
    value: fact.value,
    quote: fact.quote ?? null,
    url: fact.url ?? null,
    says: fact.says,
  })),
});
