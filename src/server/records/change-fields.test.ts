import fc from 'fast-check';
import { stableId } from '../../core/base';
import { compileFeel, compileFeelSql, parseFeel, type FeelScope } from '../../core/feel';
import { catalogueOf, FIELD_TYPES, type FactValue, type OwnField } from '../../core/fields';
import { demoWorld, type TestWorld } from '../../testing/world';
import { columnOf, whereOf } from './store/conditions';
import { filledCounts, ownIndexes } from './store/fields';
import { loadViews } from './store/records';
import { editField, fieldsView, makeField, tryField, undoFieldChange } from './change-fields';
import { keepFieldIndexes } from './field-indexes';
import { recordFacts } from './facts';
import { loadCatalogue } from './fields';
import { changeRecord } from './by-hand';
import { companies, createCompany, createPerson } from './records';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
});
afterEach(() => world.close());

const VANS: OwnField = {
  record: 'company',
  key: 'vans',
  label: 'vans',
  type: 'number',
  unit: 'vans',
  group: 'Fleet',
  sample: '4',
  words: ['lorries'],
};
const setVans = (id: string, value: FactValue) =>
  changeRecord(world, ines, { kind: 'company', id, values: { vans: value }, source: 'hand' });
const holding = async (where: string): Promise<string[]> => (await companies(world, { where })).items.map((company) => company.name).sort();
async function firm(name: string): Promise<string> {
  return (await createCompany(world, ines, { values: { name }, source: 'hand' })).id;
}

describe('a field of one’s own', () => {
  test('is made, written, asked for, and counted', async () => {
    await makeField(world, ines, VANS);
    const [a, b] = [await firm('Ash & Co'), await firm('Birch & Co')];
    await setVans(a, 'a dozen');
    await setVans(b, 3);
    expect(await holding('vans >= 12 vans')).toEqual(['Ash & Co']);
    expect(await holding('vans != null')).toEqual(['Ash & Co', 'Birch & Co']);
    const view = await fieldsView(world, 'company');
    expect(view.fields.find(({ field }) => field.key === 'vans')).toMatchObject({ uses: [] });
    // The view may show a figure counted a moment ago.
    expect((await filledCounts(world.db, 'company')).byKey).toMatchObject({ vans: 2 });
    expect(view.fields.find(({ field }) => field.key === 'heated_area')?.uses.map((use) => use.kind)).toEqual(
      // The demo’s plan has a touch for those with enough of it.
      expect.arrayContaining(['flow', 'scorecard', 'text', 'plan', 'form', 'question']),
    );
    // “name” is a part of every kept thing and a word of every text: only conditions, slots and matchings count.
    const uses = view.fields.find(({ field }) => field.key === 'name')?.uses ?? [];
    expect(uses.map((use) => use.kind)).not.toContain('lookup chain');
    expect(uses.map((use) => use.kind)).not.toContain('scorecard');
    expect(view.fields.find(({ field }) => field.key === 'city')?.uses).toEqual([]);
  });

  test('is refused where its name is taken, and where a value is none of its type', async () => {
    await makeField(world, ines, VANS);
    await expect(makeField(world, ines, VANS)).rejects.toThrow('there is a field company.vans already');
    await expect(makeField(world, ines, { ...VANS, key: 'employees' })).rejects.toThrow('every company has “employees” already');
    await expect(setVans(await firm('Elm'), 'several')).rejects.toThrow('“several” is not a number');
  });

  test('a change of unit tells every value anew, and is had back', async () => {
    const area = (await loadCatalogue(world.db)).own.find((field) => field.key === 'heated_area');
    if (!area) throw new Error('the demo has it');
    const { most: _most, bare: _bare, ...field } = area;
    const before = await holding('heated_area >= 4 ha');
    const edit = { does: 'change', field: { ...field, unit: 'm²' }, figures: 'convert' } as const;
    const trial = await tryField(world, edit);
    expect(trial).toMatchObject({ same: 0, aside: 0 });
    expect(trial.changed).toBe(trial.facts);
    expect(trial.samples[0]).toMatchObject({
      from: expect.stringMatching(/ ha$/) as string,
      to: expect.stringMatching(/000 m²$|00 m²$/) as string,
    });
    const view = await editField(world, ines, edit);
    expect(await holding('heated_area >= 40000 m²')).toEqual(before);
    await expect(companies(world, { where: 'heated_area >= 4 ha' })).rejects.toThrow('m²');
    await undoFieldChange(world, ines, view.undo?.id ?? 0);
    expect(await holding('heated_area >= 4 ha')).toEqual(before);
  });

  test('values that do not fit another type are kept aside, and come back', async () => {
    const controls = (await loadCatalogue(world.db)).own.find((field) => field.key === 'controls');
    if (!controls) throw new Error('the demo has it');
    const known = await holding('controls != null');
    const edit = { does: 'change', field: { ...controls, type: 'number' }, figures: 'convert' } as const;
    const trial = await tryField(world, edit);
    expect(trial.aside).toBe(trial.facts);
    expect(trial.samples.every((sample) => sample.to === null)).toBe(true);
    const { undo } = await editField(world, ines, edit);
    expect(await holding('controls != null')).toEqual([]);
    await undoFieldChange(world, ines, undo?.id ?? 0);
    expect(await holding('controls != null')).toEqual(known);
  });

  test('two are joined: what only one knew the other knows then, and apart again after', async () => {
    await makeField(world, ines, VANS);
    await makeField(world, ines, { ...VANS, key: 'lorries', label: 'lorries', unit: 'lorries' });
    const [a, b] = [await firm('Ash & Co'), await firm('Birch & Co')];
    await setVans(a, 5);
    await changeRecord(world, ines, { kind: 'company', id: b, values: { lorries: 7 }, source: 'hand' });
    const edit = { does: 'join', record: 'company', key: 'lorries', into: 'vans' } as const;
    // Different things are counted: whether they are the same is for a person to say, by the unit first.
    expect(await tryField(world, edit)).toMatchObject({ facts: 1, aside: 1 });
    await editField(world, ines, { does: 'change', field: { ...VANS, key: 'lorries', label: 'lorries' }, figures: 'keep' });
    const { undo, fields } = await editField(world, ines, edit);
    expect(fields.find(({ field }) => field.key === 'lorries')?.field.isRetired).toBe(true);
    expect(await holding('vans != null')).toEqual(['Ash & Co', 'Birch & Co']);
    await undoFieldChange(world, ines, undo?.id ?? 0);
    expect(await holding('vans != null')).toEqual(['Ash & Co']);
    expect(await holding('lorries != null')).toEqual(['Birch & Co']);
  });

  test('only the last change is had back, and a field every business has keeps its type', async () => {
    const first = await makeField(world, ines, VANS);
    await editField(world, ines, { does: 'retire', record: 'company', key: 'vans', isRetired: true });
    await expect(undoFieldChange(world, ines, first.undo?.id ?? 0)).rejects.toThrow('something was changed since');
    const city: OwnField = { record: 'company', key: 'city', label: 'town', type: 'number', group: 'Firm', sample: '', words: [] };
    await expect(tryField(world, { does: 'change', field: city, figures: 'keep' })).rejects.toThrow('its type and unit stay');
    await editField(world, ines, { does: 'change', field: { ...city, type: 'text' }, figures: 'keep' });
    expect((await loadCatalogue(world.db)).of('company', 'city')).toMatchObject({ label: 'town', isStandard: true });
  });

  test('indexes are kept for fields that lists and live flows ask for, and for no others', async () => {
    await makeField(world, ines, VANS);
    while ((await keepFieldIndexes(world)) > 0);
    const names = await ownIndexes(world.db);
    expect(names.some((name) => name.includes('heated_area'))).toBe(true);
    expect(names.some((name) => name.includes('vans'))).toBe(false);
    // A type that its index could not hold takes the index with it.
    const area = (await loadCatalogue(world.db)).own.find((field) => field.key === 'heated_area');
    if (!area) throw new Error('the demo has it');
    const { unit: _unit, most: _most, least: _least, bare: _bare, ...field } = area;
    await editField(world, ines, { does: 'change', field: { ...field, type: 'text' }, figures: 'keep' });
    expect((await ownIndexes(world.db)).some((name) => name.includes('heated_area'))).toBe(false);
  });
});

const valueOf = (type: OwnField['type']): fc.Arbitrary<string | number | boolean> =>
  type === 'number' || type === 'money'
    ? fc.double({ min: -1e6, max: 1e6, noNaN: true }).map((n) => Math.round(n * 100) / 100)
    : type === 'year'
      ? fc.integer({ min: 1900, max: 2100 })
      : type === 'yes/no'
        ? fc.boolean()
        : type === 'date'
          ? fc.constantFrom('2026-01-31', '2027-12-24')
          : type === 'e-mail'
            ? fc.constantFrom('a@b.example', 'c@d.example')
            : type === 'site'
              ? fc.constantFrom('a.example', 'b.example')
              : type === 'phone'
                ? fc.constantFrom('+44 1632 960417', '+44 1632 960400')
                : fc.constantFrom('red', 'blue', 'a "b"', 'x\\y');

const field = fc.record({
  record: fc.constantFrom('person' as const, 'company' as const),
  key: fc.stringMatching(/^[a-z][a-z0-9_]{0,12}$/).map((key) => `own_${key}`),
  type: fc.constantFrom(...FIELD_TYPES),
});
const made = fc
  .uniqueArray(field, { selector: (one) => one.key, minLength: 1, maxLength: 5 })
  .chain((fields) =>
    fc.tuple(
      fc.constant(fields.map((one): OwnField => ({ ...one, label: one.key, group: 'Own', sample: '', words: [] }))),
      fc.tuple(...fields.map((one) => fc.tuple(fc.option(valueOf(one.type)), valueOf(one.type)))),
    ),
  );
const literal = (value: FactValue): string =>
  typeof value === 'string' ? (/^\d{4}-\d\d-\d\d$/.test(value) ? `date("${value}")` : JSON.stringify(value)) : String(value);

test('any catalogue: closure and SQL say the same of its values', async () => {
  const person = await createPerson(world, ines, { values: { name: 'Mara Quill' }, companyId: await firm('Ash & Co'), source: 'hand' });
  const companyId = person.companyId ?? '';
  await fc.assert(
    fc.asyncProperty(made, async ([own, values]) => {
      const fields = catalogueOf(own);
      for (const [i, one] of own.entries()) {
        const value = values[i]?.[0] ?? null;
        if (!(await loadCatalogue(world.db)).of(one.record, one.key)) await makeField(world, ines, one);
        else
          await world.db`update field set body = ${world.db.json({ label: one.label, type: one.type, group: 'Own', words: [], sample: '' })} where key = ${one.key}`;
        await changeRecord(world, ines, {
          kind: one.record === 'person' ? 'person' : 'company',
          id: one.record === 'person' ? person.id : companyId,
          values: { [one.key]: value },
          source: 'hand',
        });
      }
      const view = (await loadViews(world.db, [person.id])).get(person.id);
      const scope: FeelScope = { ...view?.person, company: view?.company ?? null };
      for (const [i, one] of own.entries()) {
        const path = one.record === 'person' ? one.key : `company.${one.key}`;
        const other = literal(values[i]?.[1] ?? null);
        for (const text of [
          `${path} = ${other}`,
          `${path} != null`,
          ...(typeof values[i]?.[1] === 'number' ? [`${path} > ${other}`] : []),
        ]) {
          const { expr } = parseFeel(text);
          if (!expr) throw new Error(text);
          const compiled = compileFeelSql(expr, (segments) => columnOf(fields, 'person', segments));
          if (!compiled.ok) throw new Error(`${text}: ${compiled.message}`);
          const [row] = await world.db<{ holds: boolean | null }[]>`
            select (${whereOf(world.db, compiled.pieces)})::boolean as holds from person p left join company c on c.id = p.company_id where p.id = ${person.id}`;
          const said = compileFeel(expr)(scope);
          expect([text, row?.holds]).toEqual([text, typeof said === 'boolean' ? said : null]);
        }
      }
    }),
    { numRuns: 25, seed: 20261129 },
  );
}, 60_000);

describe('which source is believed', () => {
  const fleet = async (): Promise<string> => {
    await makeField(world, ines, VANS);
    const id = await firm('Ash & Co');
    const at = await world.clock.now();
    const said = (value: number, source: 'site' | 'crm') => ({
      fact: { record: { kind: 'company' as const, id }, field: 'vans', value, source, sourceRef: source, confidence: 0.9, observedAt: at },
      meta: { tripId: null, mark: null, userId: null },
    });
    await world.db.begin((tx) => recordFacts(tx, [said(12, 'site'), said(9, 'crm')]));
    return id;
  };

  test('is the business’s own to say; what another order changes is counted first, and can be had back', async () => {
    await fleet();
    expect(await holding('vans = 12 vans')).toEqual(['Ash & Co']);
    const edit = { does: 'change' as const, field: { ...VANS, trust: ['crm', 'file'] }, figures: 'keep' as const };
    expect(await tryField(world, edit)).toMatchObject({ rechosen: 1, facts: 2, same: 2 });
    expect(await holding('vans = 12 vans')).toEqual(['Ash & Co']);
    const view = await editField(world, ines, edit);
    expect(await holding('vans = 9 vans')).toEqual(['Ash & Co']);
    await undoFieldChange(world, ines, view.undo?.id ?? 0);
    expect(await holding('vans = 12 vans')).toEqual(['Ash & Co']);
  });

  test('people count before any order', async () => {
    const id = await fleet();
    await editField(world, ines, { does: 'change', field: { ...VANS, trust: ['crm'] }, figures: 'keep' });
    await setVans(id, 4);
    expect(await holding('vans = 4 vans')).toEqual(['Ash & Co']);
  });
});

test('a field that only builders set by hand refuses everybody else by its label', async () => {
  const rep: Actor = { userId: stableId('user', 'tomasz@thornwick.example'), name: 'Tomasz' };
  await makeField(world, ines, { ...VANS, byHand: 'builders' });
  const id = await firm('Ash & Co');
  await setVans(id, 4);
  await expect(changeRecord(world, rep, { kind: 'company', id, values: { vans: 5 }, source: 'hand' })).rejects.toThrow(
    'vans: only the owner and builders set this by hand',
  );
  await expect(createCompany(world, rep, { values: { name: 'Birch & Co', vans: 5 }, source: 'hand' })).rejects.toThrow('only the owner');
  expect((await createCompany(world, rep, { values: { name: 'Birch & Co' }, source: 'hand' })).name).toBe('Birch & Co');
});
