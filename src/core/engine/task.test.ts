/** A line that gives somebody something to do: what is given, what the trip waits for, and what it knows afterwards. */
import { compilePlan } from '../flow/plan';
import { parseFlow } from '../flow/syntax';
import { DEMO_LIBRARY } from '../../testing/demo-library';
import { go, NOW, trip, VIEW } from '../../testing/trips';
import { advance, type Advance, type RecordView, type Trip, type TripEvent } from './index';

const DAY = 86_400_000;
const SAYS = 'note if talk.done then talk.outcome + ": " + talk.words else "not done"\n';
const plan = (lines: string) => compilePlan(parseFlow(`flow "X"\nabout person\n\ntake in from hand\n${lines}`).tree, DEMO_LIBRARY);
const waits = plan(`task "Ring once", at most 2 days as talk\n${SAYS}`);
const reached: RecordView = { ...VIEW, person: { ...VIEW.person, phone: '+44 1632 960417' } };
const step = (flow: typeof waits, from: Trip, event: TripEvent = go, now = NOW, view = reached): Advance =>
  advance(flow, from, event, now, view, { zone: 'Europe/London', daysOff: new Set() });
const answer: TripEvent = {
  kind: 'answer',
  answer: { kind: 'compose', facts: [], recentLines: [], sender: { name: 'Lucía Ferrer Mas', first_name: 'Lucía' }, doNotContact: false },
};
const lastSays = (result: Advance): string | undefined => result.journal.at(-1)?.says;

function given(flow = waits, view = reached): Advance {
  const asks = step(flow, trip(), go, NOW, view);
  expect(asks.request).toEqual({ kind: 'compose', template: 'Ring once' });
  return step(flow, asks.trip, answer, NOW, view);
}
const idOf = ({ commands }: Advance): string => {
  const [command] = commands;
  if (command?.kind !== 'give task') throw new Error('a task is given');
  return command.messageId;
};

test('it is given with its words, and the trip goes on with how it went', () => {
  const first = given();
  expect(first.commands).toMatchObject([{ kind: 'give task', channel: 'call', template: 'Ring once' }]);
  expect(first.trip.state).toMatchObject({ kind: 'waiting', until: NOW + 2 * DAY, on: 'task' });
  const ended: TripEvent = { kind: 'task ended', messageId: idOf(first), done: true, outcome: 'talked', words: 'in March' };
  expect(lastSays(step(waits, first.trip, ended))).toBe('talked: in March');
});

test('after the limit it goes on without, and what is done later changes nothing', () => {
  const first = given();
  const later = step(waits, first.trip, go, NOW + 2 * DAY);
  expect(later.journal.map(({ says }) => says)).toEqual(['not done in time; it stays on the desk', 'not done']);
  const ended: TripEvent = { kind: 'task ended', messageId: idOf(first), done: true, outcome: 'talked', words: '' };
  expect(step(waits, later.trip, ended).trip).toEqual(later.trip);
});

test('the end of an earlier task is not taken for that of the one it waits for', () => {
  const two = plan('task "Ring once"\ntask "Ring once", at most 2 days as talk\n' + SAYS);
  const first = given(two);
  expect(first.trip.state.kind).toBe('ready');
  const second = step(two, first.trip, answer);
  const early: TripEvent = { kind: 'task ended', messageId: idOf(first), done: true, outcome: 'talked', words: 'too early' };
  expect(step(two, second.trip, early).trip).toEqual(second.trip);
  const own: TripEvent = { ...early, messageId: idOf(second), words: 'the right one' };
  expect(lastSays(step(two, second.trip, own))).toBe('talked: the right one');
});

test('whom it does not reach: nothing is given, and the lines below know why', () => {
  const nowhere = given(plan('task "Ring once", at most 2 days as talk\nnote talk.outcome + ": " + talk.words\n'), VIEW);
  expect(nowhere.commands.filter(({ kind }) => kind === 'give task')).toEqual([]);
  expect(nowhere.journal.map(({ says }) => says)).toContain('no call: there is no number to call');
  expect(lastSays(nowhere)).toBe('no way: there is no number to call');
});

test('a trial gives nothing and goes on as if it were not done', () => {
  const asks = step(waits, trip({ trial: true }));
  const tried = step(waits, asks.trip, answer);
  expect(tried.commands.filter(({ kind }) => kind === 'give task')).toEqual([]);
  expect(tried.journal.map(({ says }) => says)).toEqual(['would be a call to do: Did our mail reach Oakmere Glass?', 'not done']);
});
