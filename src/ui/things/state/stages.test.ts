import { draftsOf, goneStages, movesOf } from './stages';

const before = ['First talk', 'Offer', 'Won'];

test('a new name is a move that is none; deals of a stage that is gone go where it is said', () => {
  const drafts = [
    { was: 'First talk', name: 'Talk' },
    { was: 'Won', name: 'Won' },
    { was: null, name: 'Visit' },
  ];
  expect(goneStages(drafts, before, { Offer: 3, 'First talk': 9 })).toEqual([{ stage: 'Offer', deals: 3 }]);
  expect(goneStages(drafts, before, {})).toEqual([]);
  expect(movesOf(drafts, { Offer: 'Visit' })).toEqual({
    'First talk': { to: 'Talk', renamed: true },
    Offer: { to: 'Visit', renamed: false },
  });
  expect(movesOf(drafts, { Offer: '' })).toEqual({ 'First talk': { to: 'Talk', renamed: true } });
});

test('stages that come back are known by their names', () => {
  expect(draftsOf(['Won', 'Visit'], before)).toEqual([
    { was: 'Won', name: 'Won' },
    { was: null, name: 'Visit' },
  ]);
});
