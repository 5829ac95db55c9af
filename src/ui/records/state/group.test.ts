import { DEMO_FIELDS } from '../../../testing/fields';
import type { Fact } from '../../../core/facts';
import { nextWords, factGroups, sureness, timeline } from './group';
import type { KnownField, MessageItem } from './types';

const fact: Fact = {
  id: '1',
  record: { kind: 'company', id: 'c' },
  field: 'x',
  value: 1,
  source: 'site',
  sourceRef: 'x',
  confidence: 0.9,
  observedAt: 0,
};
const known = (record: 'person' | 'company', key: string, group: string): KnownField => ({
  record,
  recordId: 'r',
  key,
  label: key,
  group,
  unit: null,
  fact,
  others: [],
});
const mail = (more: Partial<MessageItem>): MessageItem => ({
  id: 'm',
  threadId: 't',
  direction: 'out',
  channel: 'e-mail',
  subject: 'Climate control',
  body: 'Hello',
  state: 'sent',
  touch: 0,
  at: 20,
  dueAt: null,
  approvedByName: 'Tomasz Wierzba',
  handledAt: null,
  says: null,
  reading: null,
  ...more,
});

describe('what we know', () => {
  test('is grouped in the order of the catalogue; what stands in the head is not repeated', () => {
    const groups = factGroups(
      [
        known('person', 'email', 'Reach'),
        known('company', 'controls', 'Growing'),
        known('company', 'heated_area', 'Growing'),
        known('person', 'name', 'Person'),
        known('company', 'website', 'Reach'),
      ],
      DEMO_FIELDS,
    );
    expect(groups.map((group) => [group.name, group.fields.map((field) => field.key)])).toEqual([
      ['Growing', ['heated_area', 'controls']],
      ['Reach', ['email', 'website']],
    ]);
  });

  test.each([
    [0.95, 'sure'],
    [0.7, 'fairly sure'],
    [0.2, 'not sure'],
  ])('confidence %d is %s', (confidence, words) => {
    expect(sureness(confidence)).toBe(words);
  });
});

describe('the timeline', () => {
  test('tells messages with their words and happenings with theirs, newest first, nothing twice', () => {
    const items = timeline(
      [
        { at: 30, kind: 'reply', says: 'Mara answered', detail: {} },
        { at: 20, kind: 'sent', says: 'First contact sent', detail: {} },
        { at: 10, kind: 'intake', says: 'Taken in from file Autumn fair', detail: { row: 87, note: 'two bays' } },
        { at: 15, kind: 'score', says: '82 of 100', detail: { points: 82, band: 'hot', out: false, why: 'area', tripId: 'trip' } },
        { at: 12, kind: 'note', says: 'Worth a look', detail: {} },
      ],
      [
        mail({}),
        mail({
          id: 'in',
          direction: 'in',
          state: 'received',
          at: 30,
          body: 'Yes, please.\nOn Tue wrote:\n> x',
          reading: { kind: 'interested', objection: null, when: 'Friday', quote: 'Yes, please.' },
        }),
        mail({ id: 'planned', state: 'planned' }),
      ],
      'Mara',
    );
    expect(items.map((item) => [item.kind, item.title, item.text])).toEqual([
      ['reply', 'Mara answered', 'Yes, please.'],
      ['sent', 'Climate control', 'touch 1 · approved by Tomasz Wierzba'],
      ['score', 'Fit 82, hot', 'area'],
      ['note', 'Note', 'Worth a look'],
      ['intake', 'Taken in from file Autumn fair', 'row 87 · “two bays”'],
    ]);
    expect(items[0]?.tags.map((tag) => tag.text)).toEqual(['interested', 'asks: Friday']);
    expect(items.map((item) => item.href)).toEqual(['/messages/t', '/messages/t', '/trips/trip', null, null]);
  });

  test('what a person did is told by how it went, and leads to its conversation', () => {
    const done = { at: 40, kind: 'task', says: 'Left word on the phone, Tomasz Wierzba', detail: { threadId: 't' } };
    const items = timeline([done], [mail({}), mail({ id: 'call', channel: 'call', touch: 1 })], 'Mara');
    expect(items.map(({ title, href }) => [title, href])).toEqual([
      ['Left word on the phone, Tomasz Wierzba', '/messages/t'],
      ['Climate control', '/messages/t'],
    ]);
    expect(nextWords({ channel: 'call', touch: 1 })).toBe('Touch 2 · call');
    expect(nextWords({ channel: 'letter', touch: null })).toBe('To be done · letter');
    expect(nextWords({ channel: 'e-mail', touch: null })).toBe('Our answer');
  });

  test('a mail that came back says so, an objection says what it objects to', () => {
    const reading = { objection: 'price', when: null, quote: 'Too expensive.', kind: 'objection' };
    expect(
      timeline([], [mail({ direction: 'in', state: 'received', reading: { ...reading, kind: 'bounce', objection: null } })], 'Mara')[0]
        ?.title,
    ).toBe('The mail came back');
    expect(timeline([], [mail({ direction: 'in', state: 'received', reading })], 'Mara')[0]?.tags[0]).toEqual({
      text: 'objection · price',
      tone: 'brick',
    });
  });
});
