import { isWhole, NEW_SERVICE, problemAt, usedFor } from './sign-in';

const whole = { ...NEW_SERVICE, name: 'Quayside', issuer: 'https://accounts.quayside.example', clientId: 'here' };

test('an empty form is not scolded; what was touched says what is wrong', () => {
  expect(problemAt(NEW_SERVICE, NEW_SERVICE, true, 'name')).toBeUndefined();
  expect(problemAt({ ...NEW_SERVICE, issuer: 'ftp://x.example' }, NEW_SERVICE, true, 'issuer')).toContain('https://');
  expect(problemAt({ ...whole, clientId: '' }, whole, false, 'clientId')).toContain('client ID');
  expect([isWhole(NEW_SERVICE), isWhole(whole)]).toEqual([false, true]);
});

test('what it is for is said in a few words', () => {
  const view = { service: whole, hasSecret: false, usedBy: [], accounts: [] };
  expect(usedFor(view)).toBe('people come in by it');
  expect(usedFor({ ...view, service: { ...whole, forPeople: false, mailScopes: 'mail.all' }, usedBy: ['mailbox Office'] })).toBe(
    'mailboxes open by it: mailbox Office',
  );
});
