/** What pages count and find, against what is there: on the demo's own records, with a list taken in. */
import fc from 'fast-check';
import { stableId } from '../../core/base';
import { demoWorld, goodSite, testWorker, type TestWorld } from '../../testing/world';
import { createFlow, flow, narrowRibbon, ribbon, startOn } from '../flows/flows';
import { lookAtFile, startImport } from '../intake/imports';
import { rail } from './rail';
import { companies, counts, countWhere, deals, people } from '../records/records';
import { release } from '../flows/releases';
import { decideReview, desk } from './reviews';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeAll(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
  goodSite(world.outside, 'oakmere-glass.example');
});
afterAll(() => world.close());

/** Every page of a list, joined. */
async function all<T>(
  page: (cursor: string | undefined) => Promise<{ readonly items: readonly T[]; readonly next: string | null }>,
): Promise<readonly T[]> {
  const out: T[] = [];
  for (let cursor: string | undefined; ;) {
    const { items, next } = await page(cursor);
    out.push(...items);
    if (next === null) return out;
    cursor = next;
  }
}
const everybody = () => all((cursor) => people(world, { cursor, limit: 200 }));
const everyFirm = () => all((cursor) => companies(world, { cursor, limit: 200 }));
const everyDeal = () => all((cursor) => deals(world, { cursor, limit: 200 }));
const has = (search: string, ...words: readonly (string | null)[]): boolean =>
  words.some((word) => word?.toLowerCase().includes(search.toLowerCase()) ?? false);
const ids = (rows: readonly { readonly id: string }[]): readonly string[] => rows.map((row) => row.id);

describe('searching', () => {
  test('finds every person, firm and deal with the letters anywhere in their words, and no other', async () => {
    const [persons, firms, business] = [await everybody(), await everyFirm(), await everyDeal()];
    expect([persons.length > 50, firms.length > 50, business.length > 5]).toEqual([true, true, true]);
    const words = [
      ...persons.flatMap((row) => [row.name, row.email, row.companyName]),
      ...firms.flatMap((row) => [row.name, row.website, row.city]),
      ...business.map((row) => row.title),
    ].filter((word) => word !== null);
    const piece = fc
      .tuple(fc.constantFrom(...words), fc.nat(), fc.integer({ min: 1, max: 6 }), fc.boolean())
      .map(([word, at, length, loud]) => {
        const part = word.slice(at % word.length, (at % word.length) + length).trim();
        return loud ? part.toUpperCase() : part;
      })
      .filter((part) => part !== '');
    await fc.assert(
      fc.asyncProperty(fc.oneof({ weight: 5, arbitrary: piece }, fc.constantFrom('%', '_', '\\', "'", '@', 'zzzz')), async (search) => {
        expect(ids(await all((cursor) => people(world, { search, cursor, limit: 200 })))).toEqual(
          ids(persons.filter((row) => has(search, row.name, row.email, row.companyName))),
        );
        expect(ids(await all((cursor) => companies(world, { search, cursor, limit: 200 })))).toEqual(
          ids(firms.filter((row) => has(search, row.name, row.website, row.city))),
        );
        expect(ids(await all((cursor) => deals(world, { search, cursor, limit: 200 })))).toEqual(
          ids(business.filter((row) => has(search, row.title, row.companyName))),
        );
      }),
      { numRuns: 60 },
    );
  });

  test('pages of any length join to the same list, newest first', async () => {
    const whole = await everybody();
    for (const limit of [1, 7, 50]) {
      const some = await all((cursor) => people(world, { cursor, limit }));
      expect(ids(some)).toEqual(ids(whole));
    }
    expect(whole.map((row) => row.createdAt)).toEqual([...whole.map((row) => row.createdAt)].sort((a, b) => b - a));
  });
});

describe('counting', () => {
  test('the records of the rail are those that the lists have', async () => {
    const [persons, firms, business] = [await everybody(), await everyFirm(), await everyDeal()];
    expect(await counts(world)).toEqual({ people: persons.length, companies: firms.length, deals: business.length });
    expect(await rail(world, ines, 'builder')).toMatchObject({ records: persons.length + firms.length, deals: business.length });
  });

  test('how many a condition holds for is the length of the list it gives', async () => {
    for (const where of ['email != null', 'company.heated_area >= 2 ha', 'company.country = "NL" and phone = null', 'email = "nobody"']) {
      expect([where, await countWhere(world, 'person', where)]).toEqual([
        where,
        (await all((cursor) => people(world, { where, cursor, limit: 200 }))).length,
      ]);
    }
    await expect(countWhere(world, 'person', 'glass > 2')).rejects.toThrow('glass');
  });

  test('the desk’s number is what stands on the desk, at every step of the way', async () => {
    const lucia: Actor = { userId: stableId('user', 'lucia@thornwick.example'), name: 'Lucía Ferrer Mas' };
    const agreeFor = async (who: Actor): Promise<number> => {
      const now = await desk(world, who);
      const own = now.reviews.filter(({ whose }) => whose.yours);
      const rows = [own, now.pairs, now.stuck, now.notices, now.firsts, now.doubts, now.replies].reduce(
        (sum, list) => sum + list.length,
        0,
      );
      expect(await rail(world, who, 'builder')).toMatchObject({ desk: rows, pairs: now.pairs.length });
      return rows;
    };
    // Of who was asked, and of who sees what others were asked.
    const agree = async (): Promise<number> => (await agreeFor(ines)) + (await agreeFor(lucia));
    const empty = await agree();
    const before = (await rail(world, ines, 'builder')).flows;
    const { id } = await createFlow(
      world,
      ines,
      'flow "Counted"\nabout person\n\ntake in from hand\ntell "Ines Okafor-Brandt" "came: " + name\nkeep when email != null\nwrite email "First contact" as m\nask "north" to approve m\nsend m\n',
    );
    await release(world, ines, id, { firstN: 1 });
    expect((await rail(world, ines, 'builder')).flows).toBe(before + 1);
    const csv =
      'Name,Mail,Firm,Web\nMara Quill,m.quill@oakmere-glass.example,Oakmere Glass,oakmere-glass.example\nPiet Aalders,piet@kas.example,Kas,kas.example\n';
    const list = await lookAtFile(world, ines, { name: 'fair.csv', bytes: Buffer.from(csv) });
    await startImport(world, ines, list, { flowId: id });
    await testWorker(world).drain();
    expect(await agree()).toBeGreaterThan(empty);
    expect((await rail(world, ines, 'builder')).sources).toBe(1);
    const [review] = (await desk(world, ines)).reviews;
    if (review) await decideReview(world, ines, review.id, { does: 'later' });
    const later = await agree();
    world.now += 5 * 3_600_000;
    expect(await agree()).toBe(later + (review ? 1 : 0));
  });
});

describe('the ribbon', () => {
  test('in small is how many got to each line or beyond', async () => {
    const { id } = await createFlow(
      world,
      ines,
      'flow "Small"\nabout person\n\ntake in from hand\nkeep when email != null\nsplit\n  when company.country = "NL"\n    note "near"\n  else\n    stop "far"\nnote "end"\n',
    );
    await release(world, ines, id);
    const persons = await everybody();
    await startOn(world, ines, id, ids(persons));
    await testWorker(world).drain();
    const { draftText } = await flow(world, id);
    const widths = await narrowRibbon(world, { id, draftText }, world.now - 86_400_000);
    const known = persons.filter((row) => row.email !== null).length;
    expect(widths.slice(0, 3)).toEqual([persons.length, persons.length, known]);
    expect([...widths]).toEqual([...widths].sort((a, b) => b - a));
    // Nothing began before: the last day is all there is.
    expect(await ribbon(world, id, world.now - 86_400_000)).toEqual(await ribbon(world, id, undefined));
    expect(await ribbon(world, id, world.now + 86_400_000)).toEqual([]);
  });
});
