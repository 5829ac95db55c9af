/** What open pages are told about, and which of them ask again. */
import fc from 'fast-check';
import { OPERATIONS, concerns, isTopic, told, TOPIC_KINDS, TOPIC_LISTS, type Operation, type Topic } from '.';

const topic = fc.oneof(
  fc.constantFrom<Topic>(...TOPIC_LISTS),
  fc
    .tuple(fc.constantFrom(...TOPIC_KINDS), fc.integer({ min: 0, max: 200 }))
    .map(([kind, no]): Topic => `${kind}:00000000-0000-4000-8000-${String(no).padStart(12, '0')}`),
);

test('a page asks again for what it shows, and for nothing else', () => {
  expect(concerns(['flow:1', 'desk'], ['flow:1'])).toBe(true);
  expect(concerns(['flow:2', 'flows'], ['flow:1'])).toBe(false);
  expect(concerns(['flow:*'], ['flow:1'])).toBe(true);
  expect(concerns(['flow:*'], ['flows', 'record:1'])).toBe(false);
  expect(concerns(['everything'], ['settings'])).toBe(true);
  expect(concerns([], ['settings'])).toBe(false);
});

test('whatever is left out of a word for its length, nobody who shows it misses it', () => {
  fc.assert(
    fc.property(fc.array(topic, { maxLength: 300 }), topic, (changed, shown) => {
      expect(concerns(told(changed), [shown])).toBe(
        concerns(changed, [shown]) || (changed.length > 60 && concerns(told(changed), [shown])),
      );
      if (concerns(changed, [shown])) expect(concerns(told(changed), [shown])).toBe(true);
      expect(JSON.stringify(told(changed)).length).toBeLessThan(7_000);
    }),
  );
});

test('few things are named one by one, many as all of their kind', () => {
  expect(told(['flow:1', 'flow:1', 'desk'])).toEqual(['flow:1', 'desk']);
  expect(told(['desk', ...Array.from({ length: 31 }, (_, i): Topic => `record:${i}`), 'flow:1'])).toEqual(['desk', 'flow:1', 'record:*']);
  expect(told(['desk', 'everything'])).toEqual(['everything']);
});

test('every operation that changes something names what; looking at what a change would do names nothing', () => {
  for (const [id, operation] of Object.entries(OPERATIONS) as [string, Operation][]) {
    if (operation.method === 'GET') continue;
    for (const one of operation.changes) expect({ id, isTopic: isTopic(one) }).toEqual({ id, isTopic: true });
    const onlyLooks = /\/(try|trial|check|preview|look)$/.test(operation.path);
    if (onlyLooks && operation.changes.length > 0) expect(['checkMailbox', 'lookAtWatched', 'recheckFact']).toContain(id);
  }
});

test('the longest word there can be fits into what the database hands on', () => {
  const most = TOPIC_KINDS.flatMap((kind) =>
    Array.from({ length: 30 }, (_, i): Topic => `${kind}:00000000-0000-4000-8000-${String(i).padStart(12, '0')}`),
  );
  const word = JSON.stringify({ kind: 'new', topics: told([...TOPIC_LISTS, ...most]) });
  expect(word).toContain('thread:00000000');
  expect(Buffer.byteLength(word)).toBeLessThan(8_000);
});
