import type { FirstDayGap, FirstDayShape } from '../../../api';
import { reachOf, readColleague, SENTENCES } from './letter';

const GAPS: readonly FirstDayGap[] = ['name', ...SENTENCES];
const letter = (standing: readonly FirstDayGap[], possible: readonly (readonly [FirstDayGap, boolean])[]) => ({
  notes: Object.fromEntries(GAPS.map((gap) => [gap, { stands: standing.includes(gap), says: '' }])) as FirstDayShape['notes'],
  possible: possible.map(([gap, isPossible], i) => ({ id: String(i), title: '', says: '', gap, needs: '', href: '/', isPossible })),
});

describe('the ribbon', () => {
  const reach = reachOf(
    letter(
      ['name', 'where', 'stages'],
      [
        ['name', true],
        ['name', true],
        ['mailbox', false],
        ['mailbox', false],
        ['stages', true],
        ['beside', false],
      ],
    ),
  );
  const at = (gap: FirstDayGap) => reach.find((entry) => entry.gap === gap);
  test('is as wide as what is possible by each sentence', () => {
    expect(reach.map(({ now }) => now)).toEqual([2, 2, 2, 2, 3, 3, 3, 3]);
    expect(reach.map(({ most }) => most)).toEqual([2, 2, 4, 4, 5, 5, 5, 6]);
    expect(at('stages')).toMatchObject({ before: 2, now: 3, stands: true });
    expect(at('mailbox')?.stands).toBe(false);
  });
  test('the first sentence stands when both name and place do', () => {
    expect(at('where')?.stands).toBe(true);
    expect(reachOf(letter(['where'], []))[0]?.stands).toBe(false);
  });
});

test.each([
  ['Ivo Castell, ivo@hartsmead.example', { name: 'Ivo Castell', email: 'ivo@hartsmead.example' }],
  ['<ivo@hartsmead.example> Ivo', { name: 'Ivo', email: 'ivo@hartsmead.example' }],
  ['ivo@hartsmead.example', { name: '', email: 'ivo@hartsmead.example' }],
  ['Ivo Castell', undefined],
])('a colleague is read of %j', (text, read) => {
  expect(readColleague(text)).toEqual(read);
});
