import { refusalText, REFUSALS, scopesOf, serviceProblems, type SignInService } from '.';

const good: SignInService = {
  name: 'Quayside',
  issuer: 'https://accounts.quayside.example',
  clientId: 'millrace',
  mailScopes: 'mail.read mail.send',
  forPeople: true,
  privateNetwork: false,
};
const at = (change: Partial<SignInService>) => serviceProblems({ ...good, ...change }).map((problem) => problem.at);

test('a whole description has no problem; every gap says its own', () => {
  expect(at({})).toEqual([]);
  expect(at({ name: ' ' })).toEqual(['name']);
  expect(at({ issuer: 'quayside' })).toEqual(['issuer']);
  expect(at({ issuer: 'ftp://accounts.quayside.example' })).toEqual(['issuer']);
  expect(at({ issuer: 'https://accounts.quayside.example/?tenant=1' })).toEqual(['issuer']);
  expect(at({ clientId: '' })).toEqual(['clientId']);
  expect(at({ mailScopes: 'mail "read"' })).toEqual(['mailScopes']);
});

test('without https only a server in our own network is asked', () => {
  expect(at({ issuer: 'http://127.0.0.1:4000' })).toEqual(['issuer']);
  expect(at({ issuer: 'http://127.0.0.1:4000', privateNetwork: true })).toEqual([]);
});

test('a service is for people, for mailboxes, or for both', () => {
  expect(at({ forPeople: false })).toEqual([]);
  expect(at({ mailScopes: '' })).toEqual([]);
  expect(at({ mailScopes: ' ', forPeople: false })).toEqual(['forPeople']);
  expect(scopesOf({ mailScopes: '  mail.read   mail.send ' })).toEqual(['mail.read', 'mail.send']);
});

test('a refusal is known by its key alone', () => {
  expect(refusalText('nobody')).toBe(REFUSALS.nobody);
  expect(refusalText('toString')).toBeUndefined();
  expect(refusalText('call this number')).toBeUndefined();
  expect(refusalText(undefined)).toBeUndefined();
});
