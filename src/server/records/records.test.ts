/** Facts, merges, pairs, limits and sign-in on a real database. */
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { factsOf } from './store/facts';
import { endSessionsOf, makeToken, sessionUser, signIn, signOut, tokenUser } from '../access/access';
import { digest } from '../access/digest';
import { createFlow, flow, saveDraft, startOn, startTrial } from '../flows/flows';
import { release } from '../flows/releases';
import { merge, undoMerge } from './merge';
import { changeRecord } from './by-hand';
import { addNote, changeDeal, companies, companyPage, createCompany, createDeal, createPerson, people, personPage } from './records';
import { decidePair, desk } from '../desk/reviews';
import { trips } from '../desk/overview';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

const person = (values: Record<string, string | null>, companyId?: string) =>
  createPerson(world, ines, { values, companyId, source: 'api' });

describe('facts on records', () => {
  test('a change by hand wins and what was there stays below it', async () => {
    const made = await createCompany(world, ines, { values: { name: 'Oakmere Glass', heated_area: '4,2 ha' }, source: 'api' });
    world.now += 1000;
    await changeRecord(world, ines, { kind: 'company', id: made.id, values: { heated_area: '3.8' }, source: 'hand' });
    world.now += 1000;
    await changeRecord(world, ines, { kind: 'company', id: made.id, values: { heated_area: '9' }, source: 'api' });
    const page = await companyPage(world, made.id);
    const area = page.known.find((field) => field.key === 'heated_area');
    expect(area?.fact).toMatchObject({ value: 3.8, source: 'hand', sourceRef: 'Ines Okafor-Brandt' });
    expect(area?.others.map((fact) => fact.value)).toEqual([9, 4.2]);
    expect(page.company.own.heated_area).toBe(3.8);
    expect(page.happened.map((entry) => entry.says)).toContain('heated area changed by Ines Okafor-Brandt');
  });

  test('unreadable values and unknown fields are refused together, and nothing is changed', async () => {
    const made = await person({ name: 'Mara Quill', email: 'm@x.example' });
    await expect(
      changeRecord(world, ines, {
        kind: 'person',
        id: made.id,
        values: { email: 'nonsense', shoe_size: '44', phone: '+44 1632 960417' },
        source: 'hand',
      }),
    ).rejects.toThrow('e-mail: “nonsense” is not an e-mail address; a person has no field “shoe_size”');
    expect((await personPage(world, made.id)).person).toMatchObject({ email: 'm@x.example', phone: null });
  });

  test('a person needs a name, and can be made from its parts', async () => {
    await expect(person({ email: 'm@x.example' })).rejects.toThrow('a person needs a name');
    expect((await person({ first_name: 'Mara', last_name: 'Quill' })).name).toBe('Mara Quill');
  });

  test('lists are searched and turned over page by page, without gaps or doubles', async () => {
    for (let i = 0; i < 7; i++) {
      world.now += 1;
      await person({ name: `Person ${i}`, email: `p${i}@x.example` });
    }
    const seen: string[] = [];
    let cursor: string | undefined;
    do {
      const page = await people(world, { limit: 3, cursor });
      seen.push(...page.items.map((row) => row.name));
      cursor = page.next ?? undefined;
    } while (cursor);
    expect(seen).toEqual(['Person 6', 'Person 5', 'Person 4', 'Person 3', 'Person 2', 'Person 1', 'Person 0']);
    expect((await people(world, { search: 'p3@x' })).items.map((row) => row.name)).toEqual(['Person 3']);
    expect((await people(world, { search: '100 % nobody_' })).items).toEqual([]);
    await expect(people(world, { cursor: 'forged' })).rejects.toThrow('the cursor is not one that Millrace gave out');
  });

  test('deals are opened and moved only along their pipeline', async () => {
    const ask = { title: 'Oakmere', pipeline: 'Glasshouse sales', amount: 38_000, companyId: null, personId: null };
    const deal = await createDeal(world, ines, { source: 'api', ...ask, stage: 'Qualified' });
    await expect(createDeal(world, ines, { source: 'api', ...ask, stage: 'Sold' })).rejects.toThrow(
      'Glasshouse sales has the stages Qualified',
    );
    await expect(createDeal(world, ines, { source: 'api', ...ask, pipeline: 'X', stage: 'Y' })).rejects.toThrow('there is no pipeline “X”');
    expect((await changeDeal(world, deal.id, 'Meeting')).stage).toBe('Meeting');
    await expect(changeDeal(world, deal.id, 'Sold')).rejects.toThrow('has the stages');
  });

  test('a note stands on the timeline', async () => {
    const made = await person({ name: 'Mara Quill' });
    await addNote(world, ines, 'person', made.id, 'Ask about the screens');
    expect((await personPage(world, made.id)).happened[0]).toMatchObject({ kind: 'note', says: 'Ask about the screens' });
  });
});

describe('merging', () => {
  test('keeps every fact of both, and undone gives everything back', async () => {
    const firm = await createCompany(world, ines, { values: { name: 'Oakmere Glass' }, source: 'api' });
    const a = await person({ name: 'M. Quill', phone: '+44 1632 960417' }, firm.id);
    const b = await person({ name: 'Mara Quill', email: 'm@x.example' });
    await addNote(world, ines, 'person', a.id, 'from the card');
    const before = { a: (await factsOf(world.db, [a.id])).length, b: (await factsOf(world.db, [b.id])).length };
    await world.db.begin((tx) =>
      merge(tx, { kind: 'person', fromId: a.id, intoId: b.id, confidence: 0.98, evidence: [], by: 'rule' }, world.now),
    );
    const joined = await personPage(world, a.id);
    expect(joined.person).toMatchObject({ id: b.id, email: 'm@x.example', phone: '+441632960417', companyId: firm.id });
    expect(joined.happened.map((entry) => entry.says)).toEqual(
      expect.arrayContaining(['from the card', 'Known already: joined with M. Quill']),
    );
    expect(await factsOf(world.db, [b.id])).toHaveLength(before.a + before.b);
    expect(joined.merges).toEqual([expect.objectContaining({ fromName: 'M. Quill', by: 'rule' })]);

    await undoMerge(world, joined.merges[0]!.id, ines);
    expect((await personPage(world, a.id)).person).toMatchObject({ id: a.id, name: 'M. Quill', companyId: firm.id, email: null });
    expect((await personPage(world, a.id)).happened.map((entry) => entry.says)).toContain('from the card');
    expect((await personPage(world, b.id)).person).toMatchObject({ email: 'm@x.example', phone: null, companyId: null });
    await expect(undoMerge(world, joined.merges[0]!.id, ines)).rejects.toThrow('undone already');
  });

  test('companies give their people and deals along, and back', async () => {
    const [one, two] = [
      await createCompany(world, ines, { values: { name: 'Trask & Sons' }, source: 'api' }),
      await createCompany(world, ines, { values: { name: 'Trask and Sons Ltd' }, source: 'api' }),
    ];
    const made = await person({ name: 'Owen Trask' }, one.id);
    await createDeal(world, ines, {
      source: 'api',
      title: 'Trask',
      pipeline: 'Glasshouse sales',
      stage: 'Qualified',
      amount: null,
      companyId: one.id,
      personId: made.id,
    });
    await world.db.begin((tx) =>
      merge(tx, { kind: 'company', fromId: one.id, intoId: two.id, confidence: 0.9, evidence: [], by: 'Ines' }, world.now),
    );
    const joined = await companyPage(world, one.id);
    expect([joined.company.id, joined.people.map((row) => row.name), joined.deals.length]).toEqual([two.id, ['Owen Trask'], 1]);
    await undoMerge(world, joined.merges[0]!.id, ines);
    expect((await companyPage(world, one.id)).people).toHaveLength(1);
    expect((await companyPage(world, two.id)).people).toHaveLength(0);
    expect((await companies(world, {})).items).toHaveLength(2);
  });

  test('a doubtful pair holds its trip until somebody says; different ones are not asked about again', async () => {
    const made = await createFlow(
      world,
      ines,
      'flow "Match"\nabout person\n\ntake in from hand\nmatch person\n  ask above 0.50\n  same above 0.99\nnote "after"\n',
    );
    await release(world, ines, made.id);
    const firm = await createCompany(world, ines, { values: { name: 'Oakmere Glass' }, source: 'api' });
    await person({ name: 'Mara Quill', email: 'info@oakmere-glass.example' }, firm.id);
    const second = await person({ name: 'Tom Achterberg', email: 'info@oakmere-glass.example' }, firm.id);
    await startOn(world, ines, made.id, [second.id]);
    await testWorker(world).drain();
    const [pair] = (await desk(world)).pairs;
    expect(pair).toMatchObject({ kind: 'person', aName: 'Tom Achterberg', bName: 'Mara Quill', state: 'open' });
    expect(pair!.evidence.map((entry) => entry.field)).toEqual(['e-mail', 'name', 'company']);
    await decidePair(world, ines, pair!.id, 'different');
    await testWorker(world).drain();
    expect((await trips(world, {})).items[0]).toMatchObject({ state: 'done' });
    await expect(decidePair(world, ines, pair!.id, 'same')).rejects.toThrow('decided already');
    expect(await startOn(world, ines, made.id, [second.id])).toEqual({ started: 0, already: 1 });
  });

  test('of two trips in one flow only one goes on after their people were joined', async () => {
    const made = await createFlow(world, ines, 'flow "Wait"\nabout person\n\ntake in from hand\nwait 2 days\nnote "after"\n');
    await release(world, ines, made.id);
    const [a, b] = [await person({ name: 'M. Quill' }), await person({ name: 'Mara Quill' })];
    await startOn(world, ines, made.id, [a.id, b.id]);
    await testWorker(world).drain();
    await world.db.begin((tx) =>
      merge(tx, { kind: 'person', fromId: a.id, intoId: b.id, confidence: 1, evidence: [], by: 'Ines' }, world.now),
    );
    world.now += 3 * 86_400_000;
    await testWorker(world).drain();
    const rows = (await trips(world, {})).items;
    expect(rows.map((row) => row.state).sort()).toEqual(['done', 'stopped']);
    expect(rows.find((row) => row.state === 'stopped')?.says).toBe('joined with Mara Quill, who is in this flow already');
  });
});

describe('flows', () => {
  const text = 'flow "Small"\nabout person\n\ntake in from hand\nnote "x"\n';
  test('a draft begun on an old number is refused, the newer one stays', async () => {
    const made = await createFlow(world, ines, text);
    const saved = await saveDraft(world, ines, made.id, { text: text.replace('"x"', '"y"'), base: made.draftNo });
    await expect(saveDraft(world, ines, made.id, { text: text.replace('"x"', '"z"'), base: made.draftNo })).rejects.toThrow(
      'somebody saved this draft meanwhile',
    );
    expect((await flow(world, made.id)).draftText).toBe(saved.draftText);
  });

  test('errors keep a draft from being tried and released; a name is used once', async () => {
    const made = await createFlow(world, ines, text.replace('note "x"', 'note nobody'));
    await expect(release(world, ines, made.id)).rejects.toThrow('the draft has 1 error: “nobody” is not a field');
    await expect(startTrial(world, ines, made.id, {})).rejects.toThrow('mend the draft first');
    await expect(createFlow(world, ines, text)).rejects.toThrow('there is a flow named “Small” already');
    await expect(createFlow(world, ines, 'about person\n')).rejects.toThrow('the flow has no name');
    await expect(startOn(world, ines, made.id, [])).rejects.toThrow('has no live version');
  });
});

describe('sign-in', () => {
  const ask = (password: string, address?: string) => signIn(world, 'Ines@Thornwick.example ', password, address);
  test('the right password opens a session that can be closed', async () => {
    const { token, user } = await ask('glasshouse');
    expect([user.role, (await sessionUser(world, token))?.name]).toEqual(['builder', 'Ines Okafor-Brandt']);
    await signOut(world, token);
    expect(await sessionUser(world, token)).toBeUndefined();
    expect(await sessionUser(world, 'made up')).toBeUndefined();
  });

  test('wrong ones make the next wait, longer and longer, and only for who types them', async () => {
    for (let i = 0; i < 5; i++) await expect(ask('wrong')).rejects.toThrow('e-mail or password is wrong');
    // The sixth is looked at a second later; a try that is not looked at does not make it longer.
    for (let i = 0; i < 4; i++) await expect(ask('glasshouse')).rejects.toThrow(/too many wrong passwords: try again in \d seconds?/);
    // The owner of the account, at an address of their own, is let in.
    await expect(signIn(world, 'ines@thornwick.example', 'glasshouse', '198.51.100.9')).resolves.toBeDefined();
    await expect(signIn(world, 'nobody@thornwick.example', 'x')).rejects.toThrow('e-mail or password is wrong');
  });

  test('many at once gain nothing: each is counted before its password is looked at', async () => {
    const looked: string[] = [];
    const slow: TestWorld = {
      ...world,
      passwords: {
        ...world.passwords,
        verify: async (hash, password) => {
          looked.push(password);
          return hash === `hash of ${password}`;
        },
      },
    };
    await Promise.allSettled(Array.from({ length: 40 }, (_, i) => signIn(slow, 'tomasz@thornwick.example', `guess ${i}`, '198.51.100.20')));
    expect(looked.length).toBeLessThanOrEqual(6);
  });

  test('an account that does not exist takes as long to refuse: a password is looked at all the same', async () => {
    const hashes: string[] = [];
    const watched: TestWorld = {
      ...world,
      passwords: {
        ...world.passwords,
        verify: async (hash) => {
          hashes.push(hash);
          return false;
        },
      },
    };
    await expect(signIn(watched, 'nobody@thornwick.example', 'x', '198.51.100.30')).rejects.toThrow('e-mail or password is wrong');
    await expect(signIn(watched, 'lucia@thornwick.example', 'x', '198.51.100.31')).rejects.toThrow('e-mail or password is wrong');
    expect(hashes).toHaveLength(2);
  });

  test('a session ends when nobody uses it, and some time after it began', async () => {
    const { token } = await ask('glasshouse', '198.51.100.40');
    expect((await sessionUser(world, token))?.role).toBe('builder');
    await world.db`update session set seen_at = now() - interval '73 hours'`;
    expect(await sessionUser(world, token)).toBeUndefined();
    await world.db`update session set seen_at = now(), expires_at = now() - interval '1 second'`;
    expect(await sessionUser(world, token)).toBeUndefined();
  });

  test('sessions of one person, or of everybody, are ended by a command', async () => {
    const { token } = await ask('glasshouse', '198.51.100.41');
    const other = await signIn(world, 'ruud@thornwick.example', 'glasshouse', '198.51.100.42');
    await expect(endSessionsOf(world, 'nobody@thornwick.example')).rejects.toThrow('there is nobody with the e-mail');
    expect(await endSessionsOf(world, 'ines@thornwick.example')).toBeGreaterThan(0);
    expect(await sessionUser(world, token)).toBeUndefined();
    expect((await sessionUser(world, other.token))?.role).toBe('owner');
    await endSessionsOf(world, null);
    expect(await sessionUser(world, other.token)).toBeUndefined();
  });

  test('tokens are kept as digests only', async () => {
    const token = await makeToken(world, ines.userId!, 'test', 1);
    expect((await tokenUser(world, token))?.role).toBe('builder');
    const rows = await world.db<{ tokenHash: string }[]>`select token_hash from api_token`;
    expect(rows.map((row) => row.tokenHash)).toContain(digest(token));
    expect(JSON.stringify(rows)).not.toContain(token);
  });
});
