import { channelOf, countedChannels, isByHand, reachOf } from './channels';

const person = { name: 'Mara Quill', email: 'mara@quill.example', phone: null, mobile: ' ' };
const company = {
  name: 'Quill & Sons',
  phone: '+44 1632 960400',
  street: '12 Marsh Lane',
  postcode: 'HU13 0RG',
  city: 'Hessle',
  country: 'GB',
};

test('a text without a word of its channel is a mail, and mail alone leaves by itself', () => {
  expect(channelOf({})).toBe('e-mail');
  expect(isByHand('e-mail')).toBe(false);
  expect((['call', 'profile note', 'letter'] as const).every(isByHand)).toBe(true);
});

test('a call takes their own number before the mobile one before the firm’s', () => {
  expect(reachOf('call', person, company)).toBe('+44 1632 960400');
  expect(reachOf('call', { ...person, mobile: '+44 7700 900417' }, company)).toBe('+44 7700 900417');
  expect(reachOf('call', { ...person, phone: '+44 1632 960417', mobile: '+44 7700 900417' }, company)).toBe('+44 1632 960417');
  expect(reachOf('call', person, null)).toBeNull();
});

test('a letter wants a street and a place; what else is known stands on it', () => {
  expect(reachOf('letter', person, company)).toBe('Quill & Sons\nMara Quill\n12 Marsh Lane\nHessle\nHU13 0RG\nUNITED KINGDOM');
  expect(reachOf('letter', person, { ...company, city: 'De Kwakel', postcode: '1424 XV', country: 'NL' })).toBe(
    'Quill & Sons\nMara Quill\n12 Marsh Lane\n1424 XV De Kwakel\nNETHERLANDS',
  );
  expect(reachOf('letter', person, { ...company, postcode: null, country: null })).toBe('Quill & Sons\nMara Quill\n12 Marsh Lane\nHessle');
  expect(reachOf('letter', person, { ...company, street: '' })).toBeNull();
  expect(reachOf('letter', person, null)).toBeNull();
});

test('channels are counted in their order', () => {
  expect(countedChannels(['call', 'e-mail', 'e-mail'])).toBe('2 e-mails and 1 call');
  expect(countedChannels(['letter', 'profile note', 'call', 'call', 'e-mail'])).toBe('1 e-mail, 2 calls, 1 profile note and 1 letter');
  expect(countedChannels([])).toBe('nothing');
});
