import { headersIn, headersText, mayTry, NEW_PROVIDER, placesOf, problemsIn } from './provider';

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
