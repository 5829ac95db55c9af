import { deskRows, minutesOfWork, sayOpen, sayRow } from './rows';
import type { DeskView } from './types';

const message = {
  id: 'm',
  subject: 'Climate control',
  body: 'Hello',
  personalLine: null,
  language: null,
  fallback: null,
  facts: [],
  checks: [],
  direction: 'in' as const,
  state: 'received',
  at: 50,
  personId: 'p',
  personName: 'Mara Quill',
  threadId: 't',
  fromAddress: 'm@x.example',
  template: null,
  reading: { kind: 'objection', objection: 'price', when: null, quote: 'That is too expensive.' },
};
const stuck = (key: string, why: string, count = 1) => ({
  key,
  flowId: 'f',
  flowName: 'Trade-fair visitors',
  line: 'line 4 read',
  why,
  held: false,
  count,
  since: 10,
  trips: [{ id: key, personName: key, companyName: null }],
  byHand: null,
});
const TASK: DeskView['tasks'][number] = {
  id: 'call',
  messageId: 'm2',
  personId: 'p',
  personName: 'Mara Quill',
  companyName: 'Quill & Sons',
  threadId: 't',
  tripId: 'trip',
  flowId: 'f',
  flowName: 'Trade-fair visitors',
  channel: 'call',
  subject: 'Ring once',
  body: 'Ask about the bays.',
  dueAt: 40,
  attempts: 1,
  ownerName: 'Tomasz Wierzba',
  whose: { people: ['Tomasz Wierzba'], standIn: false, yours: false },
  reach: '+44 1632 960417',
  zone: 'Europe/London',
};
const DESK: DeskView = {
  doubts: [{ id: 'd', personId: 'p', personName: 'Piet Aalders', subject: 'x', mailbox: 'Sales mailbox', says: null, startedAt: 99 }],
  replies: [{ ...message, thread: [], holder: null, whose: null }],
  tasks: [],
  pairs: [
    {
      id: 'pair',
      kind: 'company',
      aId: 'a',
      bId: 'b',
      aName: 'Trask & Sons',
      bName: 'Trask and Sons Ltd',
      confidence: 0.81,
      createdAt: 5,
      facts: [],
      evidence: [
        { field: 'phone', ours: '1', theirs: '1', agrees: 'yes', weight: 9 },
        { field: 'site', ours: 'a', theirs: 'b', agrees: 'no', weight: -4 },
        { field: 'name', ours: 'a', theirs: 'b', agrees: 'partly', weight: 2 },
      ],
    },
  ],
  reviews: [
    {
      id: 'r',
      personId: 'p',
      personName: 'Mara Quill',
      companyName: 'Oakmere Glass',
      whose: { people: ['Tomasz'], standIn: false, yours: true },
      flowId: 'f',
      flowName: 'Trade-fair visitors',
      who: 'north',
      told: null,
      dueAt: null,
      createdAt: 3,
      message: { ...message, direction: 'out' },
      then: [],
    },
  ],
  stuck: [stuck('one', 'site busy', 1200), stuck('three', 'held: too long'), stuck('four', 'site busy')],
  firsts: [
    {
      flowId: 'f',
      flowName: 'Trade-fair visitors',
      versionId: 'v',
      firstN: 10,
      held: 230,
      open: 1,
      done: 7,
      stopped: 2,
      stuck: 0,
      since: 7,
    },
  ],
  notices: [
    {
      id: 'n',
      text: 'A first contact still waits',
      personId: 'p',
      personName: 'Mara Quill',
      flowName: 'Trade-fair visitors',
      tripId: 't',
      at: 1,
    },
  ],
};

describe('rows of the desk', () => {
  test('most urgent first; stuck trips of one line and reason are one decision', () => {
    expect(deskRows(DESK).map((row) => row.kind)).toEqual([
      'doubt',
      'reply',
      'pair',
      'review',
      'stuck',
      'stuck',
      'stuck',
      'first',
      'notice',
    ]);
    const row = deskRows(DESK).find((entry) => entry.id === 'one');
    expect(row && sayRow(row)).toEqual({ title: '1,200 trips stuck', about: 'Trade-fair visitors · line 4 read', says: 'site busy' });
  });

  test('oldest first within a kind', () => {
    const two = {
      ...DESK,
      doubts: [],
      replies: [
        { ...message, id: 'late', at: 90, thread: [], holder: null, whose: null },
        { ...message, id: 'early', at: 10, thread: [], holder: null, whose: null },
      ],
    };
    expect(
      deskRows(two)
        .filter((row) => row.kind === 'reply')
        .map((row) => row.id),
    ).toEqual(['early', 'late']);
  });

  test('each says what it is about and what is known', () => {
    const said = deskRows(DESK).map(sayRow);
    expect(said[0]).toEqual({ title: 'Did this mail leave?', about: 'Piet Aalders', says: 'nobody knows whether it was taken' });
    expect(said[1]).toEqual({ title: 'Objects', about: 'Mara Quill', says: 'That is too expensive.' });
    expect(said[2]).toEqual({
      title: 'Same firm?',
      about: 'Trask & Sons · Trask and Sons Ltd',
      says: '0.81 same · phone agree · name nearly · site differ',
    });
    expect(said[3]).toEqual({ title: 'First message', about: 'Mara Quill · Oakmere Glass', says: 'Trade-fair visitors · for north' });
    expect(
      said
        .slice(4)
        .map((row) => row.title)
        .sort(),
    ).toEqual(['1 trip stuck', '1 trip stuck', '1,200 trips stuck', 'The first 10 are on their way', 'Told to you']);
  });

  test('a task stands before what can wait, says its try, and another’s comes last', () => {
    const rows = deskRows({ ...DESK, tasks: [{ ...TASK, whose: null }] });
    expect(rows[2]?.kind).toBe('task');
    expect(sayRow(rows[2]!)).toEqual({ title: 'Call', about: 'Mara Quill · Quill & Sons', says: 'Ring once · try 2' });
    const others = deskRows({ ...DESK, tasks: [TASK] });
    expect(sayRow(others.at(-1)!).says).toBe('Ring once · try 2 · Tomasz Wierzba does it');
    // Tried again another day it is a new row, and is not taken for the one that was decided.
    expect(rows[2]?.id).not.toBe(deskRows({ ...DESK, tasks: [{ ...TASK, whose: null, attempts: 2 }] })[2]?.id);
  });

  test('what was asked of others comes last, says of whom, and is none of your work', () => {
    const review = DESK.reviews[0];
    if (!review) throw new Error('there is one');
    const asked = (whose: typeof review.whose, id: string) => ({ ...review, id, whose });
    const desk = {
      ...DESK,
      reviews: [
        asked({ people: ['Lucía'], standIn: false, yours: false }, 'theirs'),
        asked({ people: ['Ruud'], standIn: true, yours: true }, 'stand-in'),
      ],
    };
    const rows = deskRows(desk);
    expect(rows.at(-1)?.id).toBe('theirs');
    expect(sayRow(rows.at(-1)!).says).toBe('Trade-fair visitors · asked of north: Lucía');
    expect(sayRow(rows.find(({ id }) => id === 'stand-in')!).says).toBe('Trade-fair visitors · you stand in for north');
    expect(sayOpen(rows)).toMatch(/^9 things need a person · about 8 minutes · 1 message asked of others$/);
    expect(sayOpen([rows.at(-1)!])).toBe('nothing needs you · 1 message asked of others');
    expect(sayOpen([])).toBe('nothing needs a person');
    const reply = DESK.replies[0];
    if (!reply) throw new Error('there is one');
    const held = (yours: boolean, id: string) => ({ ...reply, id, holder: 'Tomasz', whose: { people: ['Tomasz'], standIn: false, yours } });
    const handed = deskRows({ ...DESK, replies: [held(false, 'his'), held(true, 'mine')] });
    expect(handed.at(-1)?.id).toBe('his');
    expect(sayRow(handed.at(-1)!).says).toMatch(/^Tomasz has it · /);
    expect(sayRow(handed.find(({ id }) => id === 'mine')!).says).toMatch(/^handed to you · /);
    expect(sayOpen([handed.at(-1)!])).toBe('nothing needs you · 1 thing asked of others');
  });

  test('nothing needs no time', () => {
    expect(minutesOfWork([])).toBe(0);
    expect(minutesOfWork(deskRows(DESK))).toBe(8);
  });
});
