import { parseLines } from '../syntax';
import { fieldsAskedFor } from './index';

const none = { fields: [] };
const asked = (line: string, library: Parameters<typeof fieldsAskedFor>[1] = none) => {
  const [first] = parseLines(line).tree.lines;
  if (!first) throw new Error('no line');
  return fieldsAskedFor(first, library);
};

test('a question whose name is no field yet offers one of its type', () => {
  const fields = asked(
    'read company from website\n  delivery_vans: number in vans "How many vans do they run?"\n  opened: year "When did they open?"\n  works_at: one of "day", "night" "When do they work?"\n  email: text "What is their address?"',
  );
  expect(fields.map(({ key, label, type, unit, options }) => ({ key, label, type, unit, options }))).toEqual([
    { key: 'delivery_vans', label: 'Delivery vans', type: 'number', unit: 'vans', options: undefined },
    { key: 'opened', label: 'Opened', type: 'year', unit: undefined, options: undefined },
    { key: 'works_at', label: 'Works at', type: 'choice', unit: undefined, options: ['day', 'night'] },
    { key: 'email', label: 'Email', type: 'text', unit: undefined, options: undefined },
  ]);
});

test('a field there is, of the business or of everybody, is not offered again', () => {
  const [field] = asked('read company from website\n  vans: number in vans "How many vans?"');
  if (!field) throw new Error('no field');
  expect(asked('read company from website\n  vans: number in vans "How many vans?"', { fields: [field] })).toEqual([]);
  expect(asked('read company from website\n  country: text "Which country?"')).toEqual([]);
});

test('lines that ask nothing of a record offer none', () => {
  expect(asked('score company by "A"')).toEqual([]);
});
