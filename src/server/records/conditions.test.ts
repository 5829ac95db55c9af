/** The same condition as a closure and as SQL gives the same rows: on generated conditions over generated records, in a real database. */
import { DEMO_FIELDS } from '../../testing/fields';
import fc from 'fast-check';
import { compileFeel, compileFeelSql, parseFeel, type FeelScope } from '../../core/feel';
import { readCondition } from '../../core/flow/check';
import { stableId } from '../../core/base';
import { demoWorld, type TestWorld } from '../../testing/world';
import { columnOf, whereOf } from './store/conditions';
import { duePeople, insertCompanies, insertPeople, loadViews } from './store/records';
import { companies, deals, people } from './records';
import { conditionPieces } from './conditions';

let world: TestWorld;
beforeAll(async () => {
  ({ world } = await demoWorld({ crm: true }));
  const odd = [null, '', 'Ä', 'a', 'B', '%', "O'Hara", 'naïve'] as const;
  const numbers = [null, 0, 1, -3, 2.5, 7] as const;
  await insertCompanies(
    world.db,
    Array.from({ length: 48 }, (_, i) => ({
      id: stableId('odd company', String(i)),
      values: {
        name: `Firm ${i}`,
        city: odd[i % odd.length],
        employees: numbers[i % numbers.length] === 2.5 ? 3 : numbers[i % numbers.length],
        heated_area: Math.max(0, numbers[(i * 5) % numbers.length] ?? 0) || null,
        expansion: [null, true, false][i % 3],
      },
      matchKeys: [],
    })),
    world.now,
  );
  await insertPeople(
    world.db,
    Array.from({ length: 60 }, (_, i) => ({
      id: stableId('odd person', String(i)),
      values: {
        name: `Person ${i}`,
        email: i % 4 === 0 ? null : `p${i}@x.example`,
        job_title: odd[(i * 3) % odd.length],
        language: odd[(i * 7) % odd.length],
      },
      companyId: i % 5 === 0 ? null : stableId('odd company', String(i % 48)),
      matchKeys: [],
    })),
    world.now,
  );
});
afterAll(() => world.close());

const strings = fc.constantFrom(
  'email',
  'job_title',
  'language',
  'company.city',
  '"a"',
  '"B"',
  '"Ä"',
  '""',
  '"%"',
  'upper case(job_title)',
  'job_title + language',
  'null',
);
const figures = fc.constantFrom(
  'company.employees',
  'company.heated_area',
  '2',
  '0',
  '-3',
  '2.5',
  'company.employees / company.heated_area',
  'company.employees / 2',
  'abs(company.employees)',
  'string length(job_title)',
  'null',
);
const op = fc.constantFrom('=', '!=', '<', '<=', '>', '>=');
const leaf = fc.oneof(
  fc.tuple(strings, op, strings).map((parts) => parts.join(' ')),
  fc.tuple(figures, op, figures).map((parts) => parts.join(' ')),
  fc.tuple(figures, figures, figures).map(([a, b, c]) => `${a} between ${b} and ${c}`),
  fc.tuple(figures, figures).map(([a, b]) => `${a} in [${b}, 1]`),
  fc.tuple(figures, figures).map(([a, b]) => `${a} in (${b}..7]`),
  fc.constantFrom('company.expansion = true', 'company.expansion', 'company.expansion != null'),
  fc.tuple(fc.constantFrom('contains', 'starts with', 'ends with'), strings, strings).map(([f, a, b]) => `${f}(${a}, ${b})`),
);
const condition = fc.letrec<{ all: string }>((tie) => ({
  all: fc.oneof(
    { maxDepth: 3, depthSize: 'small' },
    leaf,
    fc.tuple(tie('all'), fc.constantFrom('and', 'or'), tie('all')).map(([a, b, c]) => `(${a}) ${b} (${c})`),
    tie('all').map((inner) => `not(${inner})`),
    fc.tuple(tie('all'), tie('all'), tie('all')).map(([a, b, c]) => `if ${a} then (${b}) else (${c})`),
  ),
})).all;

test('closure and SQL agree, record by record, on true, false and unknown', async () => {
  const views = await loadViews(
    world.db,
    (await world.db<{ id: string }[]>`select id from person`).map((row) => row.id),
  );
  let asked = 0;
  await fc.assert(
    fc.asyncProperty(condition, async (text) => {
      const { expr } = parseFeel(text);
      if (!expr) throw new Error(`not FEEL: ${text}`);
      const compiled = compileFeelSql(expr, (segments) => columnOf(DEMO_FIELDS, 'person', segments));
      if (!compiled.ok) throw new Error(`${text}: ${compiled.message}`);
      const closure = compileFeel(expr);
      const rows = await world.db<{ id: string; holds: boolean | null }[]>`
        select p.id, (${whereOf(world.db, compiled.pieces)})::boolean as holds from person p left join company c on c.id = p.company_id`;
      asked += rows.length;
      for (const { id, holds } of rows) {
        const view = views.get(id);
        const scope: FeelScope = { ...view?.person, company: view?.company ?? null };
        const said = closure(scope);
        expect([text, id, holds]).toEqual([text, id, typeof said === 'boolean' ? said : null]);
      }
    }),
    { numRuns: 300, seed: 20261125 },
  );
  expect(asked).toBeGreaterThan(10_000);
});

test('what SQL would answer differently is refused with its place', () => {
  const compiled = (text: string) => {
    const { expr } = parseFeel(text);
    return expr && compileFeelSql(expr, (segments) => columnOf(DEMO_FIELDS, 'person', segments));
  };
  expect(compiled('company.employees ** 2 > 4')).toMatchObject({ ok: false, from: 0, message: 'powers are not asked of the database' });
  expect(compiled('email = fit.why')).toMatchObject({ ok: false, from: 8, message: '“fit.why” is not stored with the records' });
});

test('lists are filtered by a typed condition', async () => {
  const large = await companies(world, { where: 'heated_area >= 4 ha and country = "GB"', limit: 200 });
  expect(large.items.length).toBeGreaterThan(0);
  for (const company of large.items) expect(company).toMatchObject({ country: 'GB' });
  const of = await people(world, { where: 'company.name = "Oakmere Glass"' });
  expect(of.items.map((person) => person.name).sort()).toEqual(['Imogen Ashdown', 'Mara Quill']);
  const quiet = await deals(world, { where: 'stage = "Proposal" and quiet_days >= 6 and quiet_days <= 7' });
  expect(quiet.items.map((deal) => deal.title).sort()).toEqual(['Van der Linde, screens and vents', 'Vossbruch, potting hall']);
  expect(await duePeople(world.db, await conditionPieces(world.db, 'company.name = "Oakmere Glass"', 'person'), 1)).toHaveLength(1);
});

test('a condition that cannot be read is refused with its place and nothing is shown', async () => {
  await expect(people(world, { where: 'emial != null' })).rejects.toThrow(
    '“emial” is not a field of a person, nor the result of a line above: did you mean “email”?',
  );
  await expect(people(world, { where: 'company.heated_area > 2 EUR' })).rejects.toThrow('write it in ha');
  await expect(companies(world, { where: 'heated_area' })).rejects.toThrow('a condition must be true or false');
  await expect(companies(world, { where: 'name = "x" or true; drop table person' })).rejects.toThrow();
  expect(readCondition('heated_area >= ', 'company', DEMO_FIELDS)).toMatchObject({ ok: false });
});
