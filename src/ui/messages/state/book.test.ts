import type { AnswerBookView } from '../../../api';
import { byAbout, newAnswer } from './book';

const item = (name: string, about: string, more: Partial<AnswerBookView['items'][number]> = {}): AnswerBookView['items'][number] => ({
  id: name,
  name,
  about,
  isObjection: about === 'price',
  when: '',
  first: '',
  languages: ['en'],
  used: 0,
  led: 0,
  retired: false,
  savedBy: null,
  savedAt: null,
  ...more,
});

test('objections come first, what is most used first among them, what is retired last', () => {
  const items = [item('D', 'days'), item('A', 'price'), item('B', 'price', { used: 3 }), item('R', 'price', { retired: true })];
  expect(byAbout(items).map(({ item: { name }, isFirst }) => [name, isFirst])).toEqual([
    ['B', true],
    ['A', false],
    ['D', true],
    ['R', true],
  ]);
});

test('an answer to a question that waits begins with the question and what we say of it', () => {
  expect(newAnswer({ name: 'Rent' })).toEqual({ kind: 'answer', name: 'Rent' });
  expect(newAnswer({ question: 'Do you lease?', statement: null })).toMatchObject({
    name: 'Do you lease',
    body: { about: 'Do you lease', asks: ['Do you lease?'], texts: [{ language: 'en' }] },
  });
  const long = newAnswer({ question: `${'very '.repeat(20)}long?`, statement: 'We do.' });
  expect([long.name.length, long.body?.texts[0]?.body]).toEqual([40, 'We do.']);
});
