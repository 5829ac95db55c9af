import type { Channel, FollowUpPlan } from '../../../core/writer';
import { keysOf, lanesOf, movedTo, rowsFor, spanOf, stillWaiting } from './plan';

const plan: FollowUpPlan = {
  name: 'P',
  mailbox: 'M',
  hours: { from: '09:00', to: '17:00' },
  touches: [
    { day: 0, template: 'A' },
    { day: 3, template: 'Ring' },
    { day: 8, template: 'B' },
    { day: 12, template: 'Ring' },
  ],
};
const channelAt = (text: string): Channel => (text === 'Ring' ? 'call' : 'e-mail');
const order = (one: FollowUpPlan): string => one.touches.map(({ day, template }) => `${template}${day}`).join(' ');

test('a touch that is moved past another changes place with it, and is still the one that is held', () => {
  const { plan: moved, at } = movedTo(plan, 1, 9);
  expect(order(moved)).toBe('A0 B8 Ring9 Ring12');
  expect(moved.touches[at]).toEqual({ day: 9, template: 'Ring' });
  expect(order(movedTo(plan, 3, 1).plan)).toBe('A0 Ring1 Ring3 B8');
});

test('days are whole, none lies before the first touch or beyond four hundred, and the first stays', () => {
  expect(movedTo(plan, 2, -4).plan.touches.map(({ day }) => day)).toEqual([0, 0, 3, 12]);
  expect(movedTo(plan, 3, 999.4).plan.touches.at(-1)?.day).toBe(400);
  expect(movedTo(plan, 0, 5).plan).toBe(plan);
});

test('on the day of another it stays on its side', () => {
  expect(order(movedTo(plan, 1, 8).plan)).toBe('A0 Ring8 B8 Ring12');
  expect(order(movedTo(plan, 3, 8).plan)).toBe('A0 Ring3 B8 Ring8');
});

test('lanes are those in use; the axis leaves room to move the last touch on', () => {
  expect(lanesOf(plan, channelAt)).toEqual(['e-mail', 'call']);
  expect(spanOf(plan)).toBe(16);
  expect(spanOf({ ...plan, touches: [{ day: 0, template: 'A' }] })).toBe(12);
});

test('two touches of one text are told apart', () => {
  expect(new Set(keysOf(plan)).size).toBe(4);
});

test('who answered, bounced or asked to be left alone waits no more', () => {
  const none = { reached: 0, answered: 0, bounced: 0, unsubscribed: 0 };
  expect(stillWaiting([none])).toBeUndefined();
  expect(
    stillWaiting([
      { reached: 200, answered: 20, bounced: 6, unsubscribed: 4 },
      { reached: 150, answered: 10, bounced: 0, unsubscribed: 0 },
      none,
    ]),
  ).toEqual([1, 0.85, 0.8]);
});

test('labels that would lie over each other stand in rows', () => {
  expect(rowsFor([0, 10, 20, 60, null])).toEqual([0, 1, 2, 0, 0]);
});
