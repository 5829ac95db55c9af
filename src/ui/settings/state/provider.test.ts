import {
  headersIn,
  headersText,
  mayTry,
  NEW_LATER,
  NEW_PROVIDER,
  placesOf,
  pointAt,
  pointAway,
  problemsIn,
  readWholeList,
  roleAt,
  rolesFor,
} from './provider';

const whole = { ...NEW_PROVIDER, name: 'Pennant', url: 'https://api.pennant.example/find?name={name}', value: '/address' };

test('a new description says what is missing; without the place of the value it may be tried', () => {
  expect(problemsIn(NEW_PROVIDER).map(({ at }) => at)).toEqual(['name', 'url', 'value']);
  expect([mayTry(NEW_PROVIDER), mayTry({ ...whole, value: '' }), problemsIn(whole)]).toEqual([false, true, []]);
});
test('headers are lines, whatever stands behind the first colon', () => {
  const headers = headersIn('X-Key: a:b\n\nAccept:application/json\nOdd');
  expect(headers).toEqual([
    { name: 'X-Key', value: 'a:b' },
    { name: 'Accept', value: 'application/json' },
    { name: 'Odd', value: '' },
  ]);
  expect(headersIn(headersText(headers))).toEqual(headers);
});
test('places come from a trial, else from an example that was put in', () => {
  expect(placesOf('{"a": {"mail": "x@y.example"}}', null)).toEqual([{ at: '/a/mail', value: 'x@y.example' }]);
  expect(placesOf('{"a": ', null)).toEqual([]);
});

const place = (at: string, value: string | number = 'x') => ({ at, value });
test('a value that is pointed at has its role; one of several offers the whole list', () => {
  const first = pointAt(pointAt(whole, 'value', place('/data/0/mail')), 'confidence', place('/data/0/score', 90));
  expect(first).toMatchObject({ list: '', value: '/data/0/mail', confidence: '/data/0/score' });
  const all = readWholeList(first);
  expect(all).toMatchObject({ list: '/data', value: '/mail', confidence: '/score' });
  expect(all && readWholeList(all)).toBeUndefined();
  const roles = rolesFor(whole, false);
  expect([roleAt(first, roles, '/data/1/mail'), all && roleAt(all, roles, '/data/1/mail'), roleAt(first, roles, '/data/0/mail')]).toEqual([
    '',
    'value',
    'value',
  ]);
  expect(readWholeList(whole)).toBeUndefined();
});
test('of records the first pointing says where their list stands', () => {
  const records = { ...whole, finds: 'records' as const, value: '' };
  const said = pointAt(pointAt(records, 'record.company', place('/items/0/legal_name')), 'record.place', place('/items/0/seat/town'));
  expect(said).toMatchObject({ list: '/items', record: { company: '/legal_name', place: '/seat/town' } });
  expect(problemsIn(said).map(({ at }) => at)).toEqual(['url']);
  expect(pointAway(said, 'record.place').record).toEqual({ company: '/legal_name', place: '' });
  expect(pointAt(said, 'next', place('/links/0/next')).next).toBe('/links/0/next');
});
test('a first answer of two gives a ticket; what says how far it is says the word for ready too', () => {
  const slow = { ...whole, later: NEW_LATER };
  expect(rolesFor(slow, true).map(({ role }) => role)).toEqual(['later.ticket']);
  expect(pointAt(slow, 'later.ticket', place('/id', 'j1')).later?.ticket).toBe('/id');
  expect(pointAt(slow, 'later.state', place('/state', 'ready')).later).toMatchObject({ state: '/state', ready: 'ready' });
});
