/** What is typed into the directory's criteria, as it is asked. */
import { catalogueOf, ownFieldSchema } from '../../../core/fields';
import { criteriaOf, EMPTY, wrongWith } from './directory';

const OWN = [
  { record: 'company', key: 'drum_load', label: 'drum load', type: 'number', unit: 't', inDirectory: true },
  { record: 'company', key: 'main_trade', label: 'main trade', type: 'text', inDirectory: true },
].map((field) => ownFieldSchema.parse({ group: 'firm', sample: '', words: [], ...field }));
const known = catalogueOf(OWN)
  .all('company')
  .filter((field) => field.inDirectory && OWN.some(({ key }) => key === field.key));
const [load, trade] = known as [(typeof known)[number], (typeof known)[number]];

test('nothing typed asks nothing', () => {
  expect(criteriaOf(EMPTY, known)).toEqual({
    service: '',
    what: 'people',
    title: '',
    words: '',
    place: '',
    country: '',
    order: 'name',
    fields: [],
    minEmployees: null,
  });
});

test('a figure is asked in the unit of its field, a text as it is', () => {
  const { fields, minEmployees } = criteriaOf(
    { ...EMPTY, own: { drum_load: '2.500 kg', main_trade: ' hotels ' }, minEmployees: '10' },
    known,
  );
  expect(fields).toEqual([
    { key: 'drum_load', least: 2.5, says: '' },
    { key: 'main_trade', least: null, says: 'hotels' },
  ]);
  expect(minEmployees).toBe(10);
});

test('what is no amount of the unit is said, and not asked', () => {
  expect(wrongWith(load, 'lots')).toMatch(/lots/);
  expect(wrongWith(load, '3 t')).toBeUndefined();
  expect(wrongWith(trade, 'lots')).toBeUndefined();
  expect(criteriaOf({ ...EMPTY, own: { drum_load: 'lots' } }, known).fields).toEqual([]);
});

test('a described service is asked nothing that only the directory knows', () => {
  const typed = { ...EMPTY, own: { [known[0]?.key ?? '']: '3' }, minEmployees: '10' };
  expect(criteriaOf(typed, known).minEmployees).toBe(10);
  expect(criteriaOf({ ...typed, service: 'Tollgate' }, known)).toMatchObject({ service: 'Tollgate', fields: [], minEmployees: null });
});
