import { domainLines, domainOf, keyRecord, proofResult, type DomainFacts } from '.';

const good: DomainFacts = {
  domain: 'thornwick.example',
  host: 'smtp.quayside.example',
  ip: '192.0.2.7',
  spf: { result: 'pass', record: 'v=spf1 include:_spf.quayside.example ~all' },
  dkim: 'pass',
  dmarc: { record: 'v=DMARC1; p=reject', policy: 'reject', passes: true },
};
const key = { selector: 'mr1', publicKey: 'MIIB' };
const line = (which: 0 | 1 | 2, change: Partial<DomainFacts> = {}, of: typeof key | null = key) =>
  domainLines({ ...good, ...change }, of)[which];

test('a domain in order says so three times', () => {
  expect(domainLines(good, key).map((entry) => entry.standing)).toEqual(['good', 'good', 'good']);
});

test('who may send: nobody named, others named, everybody, what cannot be read or asked', () => {
  const spf = (result: DomainFacts['spf']['result'], record: string | null = 'v=spf1 mx -all', more: Partial<DomainFacts> = {}) =>
    line(0, { spf: { result, record }, ...more });
  expect(spf('none', null)).toMatchObject({
    standing: 'wrong',
    add: { name: 'thornwick.example', text: 'v=spf1 a:smtp.quayside.example ~all' },
  });
  expect(spf('none', null, { host: null, ip: null })).toMatchObject({ add: { text: 'v=spf1 mx ~all' } });
  expect(spf('fail')).toMatchObject({ standing: 'wrong', says: expect.stringContaining('not among those') });
  expect(spf('softfail')).toMatchObject({ standing: 'weak' });
  expect(spf('permerror', null)).toMatchObject({ standing: 'wrong', says: expect.stringContaining('cannot be read') });
  expect(spf('temperror', null)).toMatchObject({ standing: 'unknown' });
  for (const record of ['v=spf1 +all', 'v=spf1 all', 'v=spf1 mx all'])
    expect(spf('pass', record)).toMatchObject({ standing: 'wrong', says: expect.stringContaining('lets everybody') });
  expect(spf('pass', 'v=spf1 include:all.example -all')).toMatchObject({ standing: 'good' });
  // Of a relay in our own network nobody here knows the address outside.
  expect(spf('fail', 'v=spf1 mx -all', { host: null, ip: null })).toMatchObject({ standing: 'unknown' });
  expect(spf('none', 'v=spf1 mx -all', { ip: null })).toMatchObject({ standing: 'unknown' });
});

test('the signature: none of ours, one that is known, one that is not yet', () => {
  expect(line(1, {}, null)).toMatchObject({ standing: 'unknown' });
  expect(line(1, { dkim: 'neutral' })).toMatchObject({
    standing: 'wrong',
    add: { name: 'mr1._domainkey.thornwick.example', text: 'v=DKIM1; k=rsa; p=MIIB' },
  });
  expect(line(1, { dkim: 'temperror' })).toMatchObject({ standing: 'unknown', add: null });
});

test('what to do with others: unsaid, lenient, strict on ourselves', () => {
  const dmarc = (policy: DomainFacts['dmarc']['policy'], passes: boolean) =>
    line(2, { dmarc: { record: policy === null ? null : `v=DMARC1; p=${policy}`, policy, passes } });
  expect(dmarc(null, false)).toMatchObject({ standing: 'weak', add: { name: '_dmarc.thornwick.example' } });
  expect(dmarc('none', false)).toMatchObject({ standing: 'weak' });
  expect(dmarc('quarantine', false)).toMatchObject({ standing: 'wrong' });
  expect(dmarc('reject', true)).toMatchObject({ standing: 'good', says: expect.stringContaining('refuse it') });
});

test('small things', () => {
  expect(domainOf('Sales@Thornwick.example')).toBe('thornwick.example');
  expect(keyRecord('a.example', key).name).toBe('mr1._domainkey.a.example');
  expect([proofResult('pass'), proofResult('policy'), proofResult(undefined)]).toEqual(['pass', 'none', 'none']);
});
