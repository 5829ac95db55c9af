import { demoWorkspace, testWorld, type TestWorld } from '../../testing/world';
import { statements, things } from '../flows/things';
import { keepMailbox } from '../messages/mailboxes';
import { loadCatalogue } from '../records/fields';
import { createDeal, createPerson } from '../records/records';
import { researchSettings } from '../research/research-settings';
import { firstDay, stillMissing } from './first-day';
import { fillFirstDay, readFill } from './first-day-fill';

const owner = { userId: null, name: 'Wenna Tregarth' };

describe('an empty workspace', () => {
  let world: TestWorld;
  beforeEach(async () => {
    world = await testWorld();
  });
  afterEach(() => world.close());
  const possible = async () => (await firstDay(world)).possible.filter((entry) => entry.isPossible).map(({ id }) => id);

  test('says what is possible from the start, and what each gap adds', async () => {
    expect(await possible()).toEqual(['list', 'form', 'research']);
    await fillFirstDay(world, owner, { gap: 'stages', text: 'Asked → Quoted → Ordered, or it is Lost' });
    await fillFirstDay(world, owner, { gap: 'asked', text: 'how many horses they keep' });
    await fillFirstDay(world, owner, { gap: 'good', text: 'keeps between 5 and 40 horses' });
    expect(await possible()).toEqual(['list', 'form', 'deals', 'research', 'score']);
  });

  test('name, place and clock are the workspace’s own', async () => {
    await fillFirstDay(world, owner, { gap: 'name', text: 'Hartsmead Feed & Bedding' });
    const letter = await fillFirstDay(world, owner, { gap: 'where', text: 'Berlin' });
    expect(letter).toMatchObject({ name: 'Hartsmead Feed & Bedding', country: 'DE', zone: 'Europe/Berlin' });
    expect(letter.notes.where.says).toMatch(/^it is \d\d:\d\d there/);
    await fillFirstDay(world, owner, { gap: 'zone', text: 'Europe/Busingen' });
    await expect(fillFirstDay(world, owner, { gap: 'zone', text: 'Europe/Nowhere' })).rejects.toThrow('is no time zone');
    await expect(fillFirstDay(world, owner, { gap: 'where', text: 'Trewarden' })).rejects.toThrow(
      'where is Trewarden? say the country with it',
    );
    expect(await firstDay(world)).toMatchObject({ country: 'DE', zone: 'Europe/Busingen' });
  });

  test('what we sell stands among what we say of ourselves, once', async () => {
    await fillFirstDay(world, owner, { gap: 'sells', what: 'bedding', whom: '' });
    const letter = await fillFirstDay(world, owner, { gap: 'sells', what: 'bedding and feed', whom: 'livery yards' });
    expect(letter.sells).toEqual({ what: 'bedding and feed', whom: 'livery yards' });
    expect((await statements(world.db)).map(({ says, by }) => [says, by])).toEqual([
      ['We sell bedding and feed to livery yards.', 'Wenna Tregarth'],
    ]);
    await fillFirstDay(world, owner, { gap: 'sells', what: '', whom: '' });
    expect(await statements(world.db)).toEqual([]);
  });

  test('what is to be known becomes a field and a question; what is asked already is said', async () => {
    expect(await readFill(world, { gap: 'asked', text: 'how many horses they keep' })).toEqual({
      ok: true,
      says: ['“How many horses do they keep?” number, kept as horses'],
    });
    const letter = await fillFirstDay(world, owner, { gap: 'asked', text: 'how many horses they keep' });
    expect(letter.asked.at(-1)).toEqual({ id: 'horses', label: 'horses', type: 'number' });
    expect((await loadCatalogue(world.db)).of('company', 'horses')).toMatchObject({ type: 'number', label: 'horses' });
    expect((await researchSettings(world)).questions.at(-1)?.wording).toBe('How many horses do they keep?');
    await expect(fillFirstDay(world, owner, { gap: 'asked', text: 'the number of horses' })).rejects.toThrow('horses is asked already');
  });

  test('a good one is a scorecard that grows; fields that say yes or no are offered until they are taken', async () => {
    await fillFirstDay(world, owner, { gap: 'asked', text: 'how many horses they keep' });
    const before = await fillFirstDay(world, owner, { gap: 'asked', text: 'whether they buy in bulk' });
    expect(before.offers).toContain('buy in bulk');
    await fillFirstDay(world, owner, { gap: 'good', text: 'more than 10 horses' });
    const letter = await fillFirstDay(world, owner, { gap: 'good', text: 'buy in bulk' });
    expect(letter.good).toEqual(['more than 10 horses', 'buy in bulk']);
    expect(letter.offers).not.toContain('buy in bulk');
    const [card] = await things(world, 'scorecard');
    expect(card).toMatchObject({ name: 'A good one', no: 2, problems: [] });
    await expect(fillFirstDay(world, owner, { gap: 'good', text: 'buys in bulk' })).rejects.toThrow('a good one has that already');
    await expect(fillFirstDay(world, owner, { gap: 'good', text: 'has blue doors' })).rejects.toThrow();
  });

  test('words that may mean several things are given back, and nothing is chosen', async () => {
    await fillFirstDay(world, owner, { gap: 'asked', text: 'whether they buy' });
    await fillFirstDay(world, owner, { gap: 'asked', text: 'whether they buy in bulk' });
    expect((await readFill(world, { gap: 'good', text: 'buys in bulk' })).says).toHaveLength(2);
    await expect(fillFirstDay(world, owner, { gap: 'good', text: 'buys in bulk' })).rejects.toThrow(
      /^may mean .+, or .+: choose one of them$/,
    );
    expect((await fillFirstDay(world, owner, { gap: 'good', text: 'company.buy_in_bulk = true' })).good).toEqual([
      'company.buy_in_bulk = true',
    ]);
  });

  test('stages with deals at them are not taken away in silence', async () => {
    await fillFirstDay(world, owner, { gap: 'stages', text: 'Asked, Quoted, Won' });
    await createDeal(world, owner, {
      source: 'hand',
      title: 'Mats',
      pipeline: 'Sales',
      stage: 'Quoted',
      amount: null,
      companyId: null,
      personId: null,
    });
    await expect(fillFirstDay(world, owner, { gap: 'stages', text: 'Asked, Won' })).rejects.toThrow(/Quoted/);
    expect((await fillFirstDay(world, owner, { gap: 'stages', text: 'Asked, Quoted, Sampled, Won' })).pipeline?.stages).toHaveLength(4);
  });

  test('says what work still waits for, until nothing is missing', async () => {
    expect(await stillMissing(world)).toMatchObject({ isEmpty: true });
    await keepMailbox(world, owner, 'Sales', {
      isNew: true,
      address: 'sales@hartsmead.example',
      displayName: 'Hartsmead',
      zone: 'Europe/London',
      dailyLimit: 20,
      personGapDays: 2,
      minutesApart: 2,
      rampUp: null,
      signature: '',
      replyTo: null,
      route: null,
      password: null,
    });
    expect((await firstDay(world)).mailbox).toEqual({ name: 'Sales', address: 'sales@hartsmead.example', sends: true });
    await createPerson(world, owner, { values: { name: 'Mo Ferrant', email: 'mo@yard.example' }, companyId: null, source: 'hand' });
    // Counts are kept until word of a change comes round.
    for (let i = 0; i < 50 && (await stillMissing(world)).missing.includes('somebody to begin with'); i += 1)
      await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await stillMissing(world)).toEqual({ isEmpty: false, missing: ['what a good one is', 'a flow that is released'] });
  });
});

test('a workspace at work misses nothing, and its letter says what stands', async () => {
  const world = await testWorld();
  await demoWorkspace(world, { crm: true });
  expect(await stillMissing(world)).toEqual({ isEmpty: false, missing: [] });
  const letter = await firstDay(world);
  expect(letter.possible.filter((entry) => !entry.isPossible).map(({ id }) => id)).toEqual([]);
  expect(letter.pipeline?.stages).toEqual(['Qualified', 'Meeting', 'Proposal', 'Won', 'Lost']);
  await world.close();
});
