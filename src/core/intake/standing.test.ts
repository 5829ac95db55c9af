import { DEMO_FIELDS } from '../../testing/fields';
import { guessColumns, listTargetsOf, planRows, readRow, StandingPlanner, targetsOf, type Places, type Target } from './index';

const PLACES: Places = {
  pipelines: [
    { name: 'Sales', stages: ['Asked', 'Quoted', 'Won', 'Lost'] },
    { name: 'Service', stages: ['Booked', 'Done'] },
  ],
  openings: [{ id: '00000000-0000-4000-8000-000000000001', name: 'Driver, mornings', stages: ['Received', 'Talk', 'Hired'] }],
};
const targets = (headings: readonly string[], rows: readonly (readonly string[])[], places = PLACES): readonly Target[] =>
  guessColumns(headings, rows, DEMO_FIELDS, places).map((guess) => guess.target);
const read = (matching: readonly Target[], cells: readonly string[]) =>
  readRow(
    cells,
    matching.map((target) => ({ target })),
    'GB',
    DEMO_FIELDS,
    PLACES,
  );

describe('what the columns of a list of deals are', () => {
  const ROWS = [
    ['New line', 'Quill & Sons Ltd', 'Mara Quill', '12,500.00', 'quoted', 'call in May'],
    ['Spare parts', 'Marlpit Ltd', 'Tom Ashgrove', '800.00', 'Booked', ''],
    ['Second line', 'Oakmere Ltd', 'Nuria Sandoval', '41,000.00', 'LOST', ''],
  ];
  test('by the stages its cells name, whatever the heading', () => {
    expect(targets(['Deal', 'Company', 'Contact', 'Value', 'Where it is', 'Remarks'], ROWS)).toEqual([
      'deal.title',
      'company.name',
      'person.name',
      'deal.amount',
      'deal.stage',
      'note',
    ]);
  });
  test('where nothing tells of deals, no column is one', () => {
    const found = targets(['Thing', 'Company', 'Contact', 'Value', 'Where it is', 'Remarks'], ROWS, { pipelines: [], openings: [] });
    expect(found.filter((target) => target.startsWith('deal.'))).toEqual([]);
  });
  test('every column it finds can be chosen', () => {
    expect(listTargetsOf(DEMO_FIELDS)).toEqual(
      expect.arrayContaining(['deal.title', 'deal.stage', 'deal.amount', 'application.opening', 'application.stage']),
    );
    expect(targetsOf(DEMO_FIELDS).some((target) => /^(?:deal|application)/.test(target))).toBe(false);
  });
  test('a list of who applied for what names its opening, and the stages of that opening', () => {
    const rows = [
      ['Ada Brook', 'ada@brook.example', 'Driver, mornings', 'Talk'],
      ['Ben Stile', 'ben@stile.example', 'driver, mornings', 'Received'],
    ];
    expect(targets(['Name', 'E-mail', 'Job', 'State'], rows)).toEqual([
      'person.name',
      'person.email',
      'application.opening',
      'application.stage',
    ]);
  });
});

describe('where a row stands', () => {
  const DEALS: readonly Target[] = ['deal.title', 'company.name', 'person.name', 'deal.amount', 'deal.stage'];
  test('at the stage it names, in the pipeline that has it', () => {
    const { record, refused } = read(DEALS, ['Spares', 'Marlpit Ltd', 'Tom Ashgrove', '800', 'booked']);
    expect(refused).toBeNull();
    expect(record.standing.deal).toEqual({
      pipeline: 'Service',
      stage: 'Booked',
      title: 'Spares',
      values: { title: 'Spares', amount: 800 },
    });
  });
  test('without a stage at the first one, without a title called after whom it is with', () => {
    const { record } = read(DEALS, ['', 'Marlpit Ltd', '', '800', '']);
    expect(record.standing.deal).toMatchObject({ pipeline: 'Sales', stage: 'Asked', title: 'Marlpit Ltd' });
    expect(record.person).toEqual({});
  });
  test('a stage that no pipeline has is named and not replaced', () => {
    const { record, refused } = read(DEALS, ['Spares', 'Marlpit Ltd', '', '800', 'Sleeping']);
    expect(refused).toBe('no pipeline has a stage “Sleeping”: there are Asked, Quoted, Won, Lost, Booked, Done');
    expect(record.standing.deal).toBeNull();
  });
  test('a row that tells of no deal is a record all the same', () => {
    const { record, refused } = read(DEALS, ['', 'Marlpit Ltd', 'Tom Ashgrove', '', '']);
    expect({ deal: record.standing.deal, refused }).toEqual({ deal: null, refused: null });
  });
  test('an opening nobody has made is named', () => {
    const matching: readonly Target[] = ['person.name', 'person.email', 'application.opening', 'application.stage'];
    expect(read(matching, ['Ada Brook', 'ada@brook.example', 'Pilot', '']).refused).toBe(
      'there is no opening “Pilot”: there is Driver, mornings',
    );
    expect(read(matching, ['Ada Brook', 'ada@brook.example', 'Driver, mornings', 'Asked']).refused).toBe(
      'Driver, mornings has no stage “Asked”: there are Received, Talk, Hired',
    );
    expect(read(matching, ['Ada Brook', 'ada@brook.example', 'driver, mornings', '']).record.standing.application).toMatchObject({
      stage: 'Received',
    });
  });
});

describe('which deal a row is', () => {
  const DEALS: readonly Target[] = ['deal.title', 'company.name', 'deal.stage'];
  const rows = [
    ['Spares', 'Marlpit Ltd', 'Booked'],
    ['spares ', 'Marlpit Ltd', 'Done'],
    ['Second van', 'Marlpit Ltd', 'Booked'],
  ].map((cells, i) => ({ row: i + 1, reading: read(DEALS, cells) }));
  const plan = (planner: StandingPlanner) =>
    planRows(rows, { people: [], companies: [] }, { importId: 'list', askAbove: 0.6, sameAbove: 0.95 }).map((entry, i) => {
      const deal = rows[i]?.reading.record.standing.deal;
      return deal ? planner.deal(entry, deal) : null;
    });
  test('the one of the same name with the same company: a row before it, or one on record, which stays where it is', () => {
    const planned = plan(new StandingPlanner('list'));
    expect(planned.map((entry) => entry?.isNew)).toEqual([true, false, true]);
    expect(planned[1]).toMatchObject({ id: planned[0]?.id, says: 'known, and stays at Booked: the list says Done' });
  });
  test('taken in again after a stop its own rows are new as before', () => {
    const first = plan(new StandingPlanner('list'));
    const again = new StandingPlanner('list');
    const companyId =
      planRows(rows, { people: [], companies: [] }, { importId: 'list', askAbove: 0.6, sameAbove: 0.95 })[0]?.companyId ?? null;
    again.know([{ id: first[0]?.id ?? '', title: 'Spares', pipeline: 'Service', stage: 'Booked', companyId, personId: null }], []);
    expect(plan(again)).toEqual(first);
  });
});
