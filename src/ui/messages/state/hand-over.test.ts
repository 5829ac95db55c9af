import { firstName, heldText } from './hand-over';

const hand = { holder: null, inPlace: [], yours: false, mayAnswer: true, to: [] };

test('who has a conversation is said of whoever looks', () => {
  expect(heldText(hand)).toBe('Everybody has this conversation.');
  expect(heldText({ ...hand, holder: 'Tomasz', yours: true })).toBe('You have this conversation.');
  expect(heldText({ ...hand, holder: 'Lucía', inPlace: ['Tomasz'], yours: true })).toBe('You stand in for Lucía, who is away.');
  expect(heldText({ ...hand, holder: 'Tomasz' })).toBe('Tomasz has this conversation: answering, you take it over.');
  expect(heldText({ ...hand, holder: 'Lucía', inPlace: ['Tomasz'], mayAnswer: false })).toBe(
    'Lucía has this conversation; Tomasz in their place.',
  );
  expect(firstName('Lucía Ferrer Mas')).toBe('Lucía');
});
