import { ASKABLE_ROLES, DOCUMENTS, type Library } from '../../../core/flow/check';
import type { PartSlot } from '../../../core/flow/say';

/** What may be put in the place of a part; undefined: it is typed. */
export function choicesFor(slot: PartSlot, library: Library): readonly string[] | undefined {
  switch (slot) {
    case 'scorecard':
      return library.scorecards.map((card) => card.name);
    case 'template':
      return library.templates.map((template) => template.name);
    case 'plan':
      return library.plans.map((plan) => plan.name);
    case 'chain':
      return library.chains.map((chain) => chain.name);
    case 'team':
      return library.teams;
    case 'who':
      return [...library.teams, ...ASKABLE_ROLES];
    case 'pipeline':
      return library.pipelines.map((pipeline) => pipeline.name);
    case 'stage':
      return [...new Set([...library.pipelines, ...library.openings].flatMap((entry) => entry.stages))];
    case 'opening':
      return library.openings.map((opening) => opening.name);
    case 'document':
      return DOCUMENTS;
    case 'intake':
      return library.intakes.map((intake) => intake.name);
    case 'duration':
      return ['1 day', '2 days', '3 days', '5 working days', '1 week'];
    case 'clock':
      return ['08:00', '09:00', '13:00', '16:30'];
    case 'addressee':
      return [...library.people, ...library.teams, ...library.webhooks];
    case 'webhook':
      return library.webhooks;
    case 'condition':
    case 'formula':
    case 'number':
    case 'text':
      return undefined;
  }
}

/** How to type a part of that kind. */
export const SLOT_HELP: Readonly<Record<PartSlot, string>> = {
  condition: 'for example company.employees >= 20',
  formula: 'words in quotes, a field, or both with + between',
  number: 'a number',
  text: 'any words',
  scorecard: '',
  template: '',
  plan: '',
  chain: '',
  team: '',
  who: '',
  pipeline: '',
  stage: '',
  opening: '',
  document: '',
  intake: '',
  duration: '',
  clock: 'a time of day, for example 09:00',
  addressee: '',
  webhook: '',
};
