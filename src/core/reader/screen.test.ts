import { abusiveWords, disposableMailbox, parkedSite, roleMailbox, testEntry } from '.';

const entry = {
  name: 'Mara Quill',
  company: 'Oakmere Glass',
  email: 'm.quill@oakmere-glass.example',
  texts: ['New controls for two bays.'],
};

describe('tries', () => {
  test.each<[Partial<typeof entry>]>([
    [{ name: 'asdf' }],
    [{ name: 'Test User' }],
    [{ name: 'qwertz' }],
    [{ name: 'xxxx' }],
    [{ company: 'test' }],
    [{ email: 'test@oakmere-glass.example' }],
    [{ texts: ['Lorem ipsum dolor sit amet'] }],
    [{ texts: ['This is a test, please ignore'] }],
    [{ texts: ['Nur ein Test'] }],
    [{ name: 'aaaaaa' }],
    [{ name: 'dfgrt bcdfg' }],
  ])('%j', (more) => {
    expect(testEntry({ ...entry, ...more })?.says).toBeDefined();
  });

  test.each<[Partial<typeof entry>]>([
    [{}],
    [{ name: 'Tess Testa' }],
    [{ name: 'Bob Foo' }],
    [{ name: 'Barbara Quist' }],
    [{ name: 'Szczepan Krzyk', company: 'BVG' }],
    [{ texts: ['We want to test two controllers before we buy.', 'hello'] }],
    [{ company: 'Contest Growers' }],
    [{ name: '', company: '' }],
  ])('people and firms as they are: %j', (more) => {
    expect(testEntry({ ...entry, ...more })).toBeUndefined();
  });
});

test('abuse is quoted; words that only contain it, and trade words, are none', () => {
  expect(abusiveWords(['Hello. You are idiots. Bye.'])?.says).toBe('“You are idiots.”');
  expect(abusiveWords(['Ihr seid doch Arschlöcher? Nein: ein Arschloch.'])).toBeDefined();
  expect(abusiveWords(['We grow shiitake and cockscomb at Scunthorpe.', 'Put the screen down.'])).toBeUndefined();
});

test('mailboxes to be thrown away, and of offices', () => {
  expect(disposableMailbox('jim@tenminutepost.example')?.about).toBe('tenminutepost.example');
  expect(disposableMailbox('jim@oakmere-glass.example')).toBeUndefined();
  expect(roleMailbox('Info@hartmann.example')?.about).toBe('info@hartmann.example');
  expect(roleMailbox('büro@hartmann.example')).toBeDefined();
  expect(roleMailbox('infanta@hartmann.example')).toBeUndefined();
});

test('a page that nobody lives on', () => {
  expect(parkedSite('x.example', 'This domain is for sale! Make an offer.')?.says).toBe('x.example says “domain is for sale”');
  expect(parkedSite('x.example', 'Diese Domain steht zum Verkauf')).toBeDefined();
  expect(parkedSite('x.example', ' \n ')?.says).toBe('x.example has an empty page');
  expect(
    parkedSite('x.example', `We grow tomatoes on 4 ha. Our new shop is coming soon. ${'More about us. '.repeat(100)}`),
  ).toBeUndefined();
  expect(parkedSite('x.example', 'Our new site is coming soon.')).toBeDefined();
  expect(
    parkedSite(
      'x.example',
      'We grow tomatoes on 4 ha of heated glass, all year round. A new glasshouse of 1.5 ha is under construction, to open in 2027.',
    ),
  ).toBeUndefined();
  expect(parkedSite('x.example', 'Oakmere grows tomatoes on 4 ha under glass.')).toBeUndefined();
});
