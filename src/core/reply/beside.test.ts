/** What an answer says beside its kind: somebody named instead, times that are proposed, a second kind. */
import { namedInstead } from './named';
import { timesSaid } from './times';
import { understandReply } from './index';

const NOW = Date.parse('2026-11-24T09:00:00Z');

describe('somebody named instead', () => {
  test.each([
    ['Please ask Rhona Blyth, she does the heating: r.blyth@oakmere.example', { name: 'Rhona Blyth', email: 'r.blyth@oakmere.example' }],
    ['In dringenden Fällen hilft Ihnen Frau Mößner: j.moessner@kolbe.example.', { name: 'Mößner', email: 'j.moessner@kolbe.example' }],
    ['Dat doet mijn broer Pieter, pieter@kas.example, niet ik.', { name: 'Pieter', email: 'pieter@kas.example' }],
    ['Adressez-vous à Odile Garrel (odile.garrel@serres.example).', { name: 'Odile Garrel', email: 'odile.garrel@serres.example' }],
    ['Hable con Rafael Ibáñez, él lleva las máquinas.', { name: 'Rafael Ibáñez', email: null }],
    ['If it burns, ring Declan on 01632 960455.', { name: 'Declan', email: null }],
    ['The office is office@oakmere.example.', { name: null, email: 'office@oakmere.example' }],
  ])('%s', (text, named) => {
    expect(namedInstead(text, 'Mara Quill <m.quill@oakmere.example>')).toEqual(named);
  });
  test('the sender is nobody else, and words that begin a sentence are no names', () => {
    expect(namedInstead('Mail me at m.quill@oakmere.example.', 'Mara Quill <m.quill@oakmere.example>')).toBeUndefined();
    expect(namedInstead('I do not deal with this. The works manager does.', 'Mara Quill <m@o.example>')).toBeUndefined();
  });
  test('is read where somebody else is meant, and nowhere else', () => {
    const read = (text: string) => understandReply({ subject: 'Re: Hello', text, at: NOW, autoSubmitted: false });
    expect(read('You have the wrong person, please contact Rhona Blyth: r.blyth@oakmere.example').named?.name).toBe('Rhona Blyth');
    expect(read('Yes, send me the details, and copy rhona@oakmere.example.').named).toBeUndefined();
  });
});

describe('times that are proposed or taken', () => {
  test.each([
    ['Tuesday 1 December at a quarter past nine, or Monday the 7th at four in the afternoon', ['2026-12-01T09:15', '2026-12-07T16:00']],
    ['Wednesday the 25th or Thursday the 26th, any time after 3', ['2026-11-25T15:00', '2026-11-26T15:00']],
    ['El miércoles 2 a las nueve. Si el miércoles está completo, el jueves 3 por la mañana.', ['2026-12-02T09:00', '2026-12-03']],
    ['Am Donnerstag, den 3. Dezember um 14 Uhr 30', ['2026-12-03T14:30']],
    ['vrijdag om half elf', ['2026-11-27T10:30']],
    ['Friday at half ten', ['2026-11-27T10:30']],
    ['jeudi 3 décembre à 10h15', ['2026-12-03T10:15']],
    ['Monday, 30 November, 2pm', ['2026-11-30T14:00']],
    ['any day you like', []],
  ])('%s', (text, times) => {
    expect(timesSaid(text, NOW)).toEqual(times);
  });
  test('an absence proposes none', () => {
    const away = understandReply({
      subject: 'Out of office',
      text: 'I am away until Monday 7 December at 9.',
      at: NOW,
      autoSubmitted: true,
    });
    expect(away).toMatchObject({ kind: 'out of office' });
    expect(away.times).toBeUndefined();
  });
});

test('what is said beside the kind that decides is said too', () => {
  const read = understandReply({
    subject: 'Re: Hello',
    text: 'We would like a visit, and Thursday 3 December at 10:00 would suit us. How loud is it?',
    at: NOW,
    autoSubmitted: false,
  });
  expect(read).toMatchObject({ kind: 'interested', times: ['2026-12-03T10:00'] });
  expect(read.also).toEqual(['question']);
});
