import fc from 'fast-check';
import { DEMO_FLOW, DEMO_LIBRARY } from '../../../testing/demo-library';
import { insertLineAfter, keepMarks } from '../../../core/flow/edit';
import { parseFlow, printFlow } from '../../../core/flow/syntax';
import { choicesFor } from './choices';
import { differences } from './differences';
import { editorReducer, openEditor, type EditorAction, type EditorState } from './editor';
import { drawRibbon } from './ribbon';
import { figuresOf, readScript, type RowFigures } from './script';
import { entryAt, lineTable, workingOf, writtenOf } from './specimen';
import type { Entry, LineCount, SpecimenTrip, Trial } from './types';

const text = printFlow(parseFlow(DEMO_FLOW).tree, { marks: true });
describe('the draft', () => {
  const play = (actions: readonly EditorAction[], state: EditorState = openEditor('a', 7)): EditorState =>
    actions.reduce(editorReducer, state);

  test('undo and redo walk the same way back and forth', () => {
    const changed = play([
      { kind: 'change', text: 'b' },
      { kind: 'change', text: 'c' },
    ]);
    expect(play([{ kind: 'undo' }], changed).text).toBe('b');
    expect(play([{ kind: 'undo' }, { kind: 'undo' }, { kind: 'undo' }], changed).text).toBe('a');
    expect(play([{ kind: 'undo' }, { kind: 'undo' }, { kind: 'redo' }, { kind: 'redo' }, { kind: 'redo' }], changed).text).toBe('c');
    expect(play([{ kind: 'undo' }, { kind: 'change', text: 'd' }, { kind: 'redo' }], changed).text).toBe('d');
  });

  test('any walk of changes, undos and redos can be undone to the beginning', () => {
    const action = fc.oneof(
      fc.string({ maxLength: 3 }).map((typed): EditorAction => ({ kind: 'change', text: typed })),
      fc.constant<EditorAction>({ kind: 'undo' }),
      fc.constant<EditorAction>({ kind: 'redo' }),
    );
    fc.assert(
      fc.property(fc.array(action, { maxLength: 60 }), (actions) => {
        let state = play(actions);
        for (let i = 0; i < 61; i++) state = editorReducer(state, { kind: 'undo' });
        expect(state.text).toBe('a');
      }),
    );
  });

  test('what the server made of the text is taken over only when nothing was typed meanwhile', () => {
    const sent = play([{ kind: 'change', text: 'b' }, { kind: 'saving' }]);
    expect(play([{ kind: 'saved', sent: 'b', text: 'b #k1', base: 8 }], sent)).toMatchObject({ text: 'b #k1', base: 8, save: 'saved' });
    expect(
      play(
        [
          { kind: 'change', text: 'bc' },
          { kind: 'saved', sent: 'b', text: 'b #k1', base: 8 },
        ],
        sent,
      ),
    ).toMatchObject({ text: 'bc', base: 8, save: 'changed' });
  });

  test('a conflict stays one while typing goes on, until a person decides', () => {
    const note = (says: string): string => keepMarks(text, text.replace('read company', `note "${says}"\nread company`));
    const begun = openEditor(note('was'), 7);
    const conflict = play(
      [
        { kind: 'change', text: note('mine') },
        { kind: 'theirs', text: note('theirs'), base: 9, name: 'Ruud' },
        { kind: 'change', text: 'mine too' },
      ],
      begun,
    );
    expect(conflict).toMatchObject({ save: 'conflict', text: 'mine too', problem: expect.stringContaining('Ruud changed a line') });
    expect(play([{ kind: 'keep mine', text: note('theirs'), base: 9 }], conflict)).toMatchObject({
      save: 'changed',
      base: 9,
      text: 'mine too',
    });
    const theirs = play([{ kind: 'load', text: 'theirs', base: 9 }], conflict);
    expect(theirs).toMatchObject({ save: 'saved', text: 'theirs' });
    expect(play([{ kind: 'undo' }], theirs).text).toBe('mine too');
  });

  const wait = (of: string, words: string): string => insertLineAfter(of, undefined, words);
  test('what somebody else saved is joined with what was typed here, and with what undo goes back to', () => {
    const mine = text.replace('>= 75', '>= 80');
    const theirs = wait(text, 'wait 1 day');
    const joined = play(
      [
        { kind: 'change', text: mine },
        { kind: 'theirs', text: theirs, base: 8, name: 'Ruud' },
      ],
      openEditor(text, 7),
    );
    expect(joined).toMatchObject({ save: 'changed', base: 8, stored: theirs, theirs: { name: 'Ruud', rows: 1 } });
    expect(joined.text).toBe(theirs.replace('>= 75', '>= 80'));
    expect(play([{ kind: 'undo' }], joined).text).toBe(theirs);
    // A word that comes late, or twice, changes nothing.
    expect(play([{ kind: 'theirs', text, base: 8, name: 'Ruud' }], joined)).toBe(joined);
  });

  test('somebody else’s draft is simply taken where nothing was changed here', () => {
    const theirs = wait(text, 'wait 1 day');
    expect(play([{ kind: 'theirs', text: theirs, base: 8, name: 'Ruud' }], openEditor(text, 7))).toMatchObject({
      text: theirs,
      save: 'saved',
      base: 8,
    });
  });

  test('undo and redo go on where the last visit left them', () => {
    // a, b, c, then one undo: c is still ahead.
    const again = openEditor('b', 4, ['a', 'b', 'c', 'b']);
    expect(again).toMatchObject({ past: ['a'], future: ['c'], save: 'saved' });
    expect(play([{ kind: 'redo' }], again)).toMatchObject({ text: 'c', save: 'changed' });
    expect(openEditor('d', 5, ['a', 'b', 'c', 'b', 'd'])).toMatchObject({ past: ['a', 'b'], future: [] });
    expect(openEditor('a', 1, ['a'])).toMatchObject({ past: [], future: [] });
  });

  test('the same text is no change', () => {
    expect(play([{ kind: 'change', text: 'a' }])).toEqual(openEditor('a', 7));
  });
});

describe('the script', () => {
  const script = readScript(text, DEMO_LIBRARY);

  test('has a row for every line and every arm, numbered as read', () => {
    expect(script.rows.filter((row) => row.kind === 'line').map((row) => row.number)).toEqual(Array.from({ length: 18 }, (_, i) => i + 1));
    expect(script.rows.filter((row) => row.kind === 'arm')).toHaveLength(4);
    expect(script.name).toBe('Trade-fair visitors');
  });

  test('findings stand at their line', () => {
    const broken = readScript(text.replace('"Grower fit"', '"Nobody’s fit"'), DEMO_LIBRARY);
    const at = broken.rows.filter((row) => row.findings.some((finding) => finding.code === 'unknown thing'));
    expect(at.map((row) => row.kind === 'line' && row.line.step.verb)).toEqual(['score']);
  });

  test('figures are summed by line, an arm’s by who took it', () => {
    const [split, arm] = [
      script.rows.find((row) => row.kind === 'line' && row.line.step.verb === 'split'),
      script.rows.find((row) => row.kind === 'arm'),
    ];
    const counts: LineCount[] = [
      { mark: split?.mark ?? '', outcome: 'passed', arm: arm?.mark ?? '', trips: 3, costMicro: 10, tookMs: 100 },
      { mark: split?.mark ?? '', outcome: 'passed', arm: null, trips: 1, costMicro: 0, tookMs: 20 },
    ];
    const figures = figuresOf(script.rows, counts);
    expect(figures.get(split?.mark ?? '')).toEqual({ reached: 4, by: { passed: 4 }, costMicro: 10, tookMs: 80 });
    expect(figures.get(arm?.mark ?? '')?.reached).toBe(3);
  });
});

describe('the ribbon', () => {
  const { rows } = readScript(text, DEMO_LIBRARY);
  const tops = Array.from({ length: rows.length + 1 }, (_, i) => i * 34);
  const draw = (reached: (i: number) => Partial<RowFigures> & { reached: number }) =>
    drawRibbon({
      rows,
      tops,
      lineHeight: 34,
      trial: false,
      figures: new Map(rows.map((row, i) => [row.mark, { by: {}, costMicro: 0, tookMs: 0, ...reached(i) }])),
    });
  const widthAt = (path: string): number => {
    const [, x = '0', right = '0'] = /^M([\d.]+) [\d.]+H([\d.]+)/.exec(path) ?? [];
    return Number(right) - Number(x);
  };

  test('is to scale: half as many trips, half as wide', () => {
    const drawn = draw((i) => ({ reached: i === 0 ? 300_000 : 150_000 }));
    const [first, second] = drawn.bands.filter((band) => band.tone === 'main');
    expect(widthAt(first?.path ?? '')).toBe(44);
    expect(widthAt(second?.path ?? '')).toBe(22);
  });

  test('one trip among many can still be seen, none has no channel', () => {
    const drawn = draw((i) => ({ reached: i === 0 ? 300_000 : i === 1 ? 1 : 0 }));
    const bodies = drawn.bands.filter((band) => /^\d+ main$/.test(band.key));
    expect(bodies).toHaveLength(2);
    expect(widthAt(bodies[1]?.path ?? '')).toBe(1.5);
  });

  test('nobody at all: nothing is drawn', () => {
    expect(draw(() => ({ reached: 0 }))).toMatchObject({ bands: [], dots: [] });
  });

  test('marks where trips stop, ask and are stuck', () => {
    const drawn = draw((i) => ({
      reached: 10,
      by: i === 1 ? { stopped: 2, passed: 8 } : i === 2 ? { asked: 1, passed: 9 } : i === 3 ? { stuck: 1, passed: 9 } : { passed: 10 },
    }));
    expect(drawn.dots.map((dot) => dot.kind)).toEqual(['stop', 'ask', 'stuck']);
  });

  test('whatever the figures, it stays inside its box and every path is a number', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ reached: fc.integer({ min: 0, max: 1e6 }), stopped: fc.integer({ min: 0, max: 1e6 }) }), {
          minLength: rows.length,
          maxLength: rows.length,
        }),
        (made) => {
          const drawn = draw((i) => ({
            reached: made[i]?.reached ?? 0,
            by: { stopped: Math.min(made[i]?.stopped ?? 0, made[i]?.reached ?? 0) },
          }));
          expect(drawn.height).toBe(rows.length * 34);
          for (const band of drawn.bands) expect(band.path).not.toMatch(/NaN|Infinity|-\d/);
        },
      ),
    );
  });
});

const entry = (more: Partial<Entry>): Entry => ({
  seq: 0,
  mark: 'm',
  verb: 'score',
  outcome: 'passed',
  says: 'x',
  detail: {},
  costMicro: 0,
  tookMs: 0,
  ...more,
});
const specimen = (personId: string, journal: Entry[]): SpecimenTrip => ({
  id: personId,
  personId,
  personName: personId,
  title: personId,
  companyName: null,
  state: 'done',
  why: '',
  journal,
  facts: [],
});
const trial = (trips: SpecimenTrip[]): Trial => ({
  id: 't',
  text: '',
  running: 0,
  costMicro: 0,
  limitMicro: 0,
  reused: 0,
  trips,
  lines: [],
});

describe('specimens at a line', () => {
  test('the last word at a line counts', () => {
    expect(entryAt(specimen('a', [entry({ seq: 0, says: 'asked' }), entry({ seq: 1, says: 'approved' })]), 'm')?.says).toBe('approved');
    expect(entryAt(undefined, 'm')).toBeUndefined();
  });

  test('scores are sorted, and differences from the trial before are told', () => {
    const scored = (points: number, band: string) => [entry({ detail: { points, band, weakest: '–', out: false } })];
    const now = trial([specimen('a', scored(57, 'warm')), specimen('b', scored(82, 'hot')), specimen('c', [])]);
    const before = trial([specimen('a', scored(57, 'warm')), specimen('b', scored(67, 'warm'))]);
    const table = lineTable('score', 'm', now, before);
    expect(table.rows.map((row) => [row.trip.personId, row.cells[0]?.text, row.was])).toEqual([
      ['b', '82', 'was 67'],
      ['a', '57', null],
    ]);
    expect(table.differ).toBe(1);
  });

  test.each([
    [
      'read',
      {
        findings: [
          { id: 'heated_area', found: true, value: 4.2, unit: 'ha' },
          { id: 'x', found: false, value: null },
        ],
      },
      ['1 of 2', '4.2 ha'],
    ],
    ['look up', { asked: [{ provider: 'Fernpost' }], value: 'm@x.example' }, ['m@x.example', '1']],
    [
      'write',
      { body: 'Hello', personalLine: 'You have 4.2 ha.', checks: [{ id: 'recipient', ok: false, says: 'none' }] },
      ['You have 4.2 ha.', 'recipient'],
    ],
    ['note', {}, ['x']],
  ])('%s has its own columns', (verb, detail, cells) => {
    const table = lineTable(verb, 'm', trial([specimen('a', [entry({ verb, detail })])]), undefined);
    expect(table.rows[0]?.cells.map((cell) => cell.text)).toEqual(cells);
  });

  test('details of another shape are read as empty, not as errors', () => {
    expect(workingOf(entry({ detail: { working: 'no list' } }))).toEqual([]);
    expect(writtenOf(entry({ detail: { body: 3 } }))).toBeUndefined();
  });
});

describe('differences', () => {
  test('say what is gone and what is new, in order; marks are not looked at', () => {
    expect(differences('a #k1\nb #k2\nc', 'a #k9\nx\nc')).toEqual([
      { kind: 'same', text: 'a' },
      { kind: 'gone', text: 'b' },
      { kind: 'new', text: 'x' },
      { kind: 'same', text: 'c' },
    ]);
  });

  test('what is kept and new makes the new text, what is kept and gone the old one', () => {
    const lines = fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1, maxLength: 12 }).map((all) => all.join('\n'));
    fc.assert(
      fc.property(lines, lines, (before, after) => {
        const diff = differences(before, after);
        expect(
          diff
            .filter((line) => line.kind !== 'gone')
            .map((line) => line.text)
            .join('\n'),
        ).toBe(after);
        expect(
          diff
            .filter((line) => line.kind !== 'new')
            .map((line) => line.text)
            .join('\n'),
        ).toBe(before);
      }),
    );
  });
});

describe('choices for a part', () => {
  test('names come from what there is; conditions are typed', () => {
    expect(choicesFor('team', DEMO_LIBRARY)).toEqual(['north', 'south', 'hiring']);
    expect(choicesFor('stage', DEMO_LIBRARY)).toContain('Qualified');
    expect(choicesFor('who', DEMO_LIBRARY)).toEqual(['north', 'south', 'hiring', 'owner', 'builder', 'reviewer']);
    expect(choicesFor('condition', DEMO_LIBRARY)).toBeUndefined();
  });
});
