/** What a workspace still lacks before work can go through it; empty when nothing is missing. Looked at, never written down. */
import { plural } from '../../core/base';
import { listFlows } from '../flows/store/flows';
import { listThings } from '../flows/store/things';
import { counts } from '../records/records';
import { sendersHere } from '../messages/mailboxes';
import { researchSettings } from '../research/research-settings';
import type { World } from '../platform/world';

export interface FirstStep {
  readonly title: string;
  readonly href: string;
  readonly isDone: boolean;
  /** how it stands, or what it is good for */
  readonly says: string;
}

export async function firstSteps(world: World): Promise<readonly FirstStep[]> {
  const [boxes, flows, cards, records, research] = await Promise.all([
    sendersHere(world),
    listFlows(world.db),
    listThings(world.db, 'scorecard'),
    counts(world),
    researchSettings(world),
  ]);
  const sending = boxes.filter((box) => box.sends);
  const live = flows.filter((flow) => flow.liveVersionId !== null);
  const steps: FirstStep[] = [
    {
      title: 'A mailbox to write from',
      href: '/settings/mailboxes',
      isDone: sending.length > 0,
      says: boxes[0]
        ? sending.length > 0
          ? `${boxes[0].address} writes`
          : `${boxes[0].address} does not send yet`
        : 'without one flows research, score and sort, and write nothing',
    },
    {
      title: 'What you want to know of every company',
      href: '/settings/reading',
      isDone: research.questions.length > 0,
      says:
        research.questions.length > 0
          ? plural(research.questions.length, 'question')
          : 'questions that are answered from their sites, with the words that say it',
    },
    {
      title: 'What a good one is',
      href: '/scorecards',
      isDone: cards.length > 0,
      says: cards.length > 0 ? plural(cards.length, 'scorecard') : 'a scorecard, tried on all records as you type it',
    },
    {
      title: 'Somebody to begin with',
      href: '/sources',
      isDone: records.people > 0,
      says: records.people > 0 ? plural(records.people, 'person', 'people') : 'a list as you have it, a form, a mailbox that is read',
    },
    {
      title: 'A flow that is released',
      href: '/flows',
      isDone: live.length > 0,
      says:
        live.length > 0
          ? live
              .map((flow) => flow.name)
              .slice(0, 3)
              .join(', ')
          : 'line by line, tried before it is let at anybody',
    },
  ];
  return steps.every((step) => step.isDone) ? [] : steps;
}
