import { chainSchema, nextProvider, usable, type Asked } from './index';

const chain = chainSchema.parse({
  name: 'Work e-mail',
  field: 'email',
  providers: [
    { name: 'Fernpost', priceMicro: 20_000 },
    { name: 'Kettlewell', priceMicro: 60_000 },
  ],
});
const asked = (provider: string, outcome: Asked['outcome']): Asked => ({
  provider,
  outcome,
  value: null,
  why: '',
  costMicro: 0,
  tookMs: 0,
});

describe('who is asked next', () => {
  test.each([
    [[], 'Fernpost'],
    [[asked('Fernpost', 'nothing')], 'Kettlewell'],
    [[asked('Fernpost', 'not usable')], 'Kettlewell'],
    [[asked('Fernpost', 'failed'), asked('Kettlewell', 'nothing')], undefined],
    [[asked('Fernpost', 'usable')], undefined],
  ])('after %j', (so, next) => {
    expect(nextProvider(chain, so)?.name).toBe(next);
  });
});

describe('whether an address may be used', () => {
  const base = { personName: 'Mara Quill', companyHost: 'oakmere-glass.example', confidence: 0.9 };
  test.each([
    ['m.quill@oakmere-glass.example', true, 'well formed, own host, carries the name'],
    ['mara@mail.oakmere-glass.example', true, 'well formed, own host, carries the name'],
    ['mq@oakmere-glass.example', false, 'the address does not carry the name'],
    ['info@oakmere-glass.example', false, 'info@ is a shared mailbox'],
    ['m.quill@hoogland-paprika.example', false, "hoogland-paprika.example is not the company's host"],
    ['not an address', false, 'not a well-formed address'],
  ])('%s', (value, ok, why) => {
    expect(usable({ ...base, value })).toEqual({ ok, why });
  });

  test('an unsure provider is not believed', () => {
    expect(usable({ ...base, value: 'm.quill@oakmere-glass.example', confidence: 0.4 })).toEqual({
      ok: false,
      why: 'the provider is only 40 % sure',
    });
  });

  test('without a known host the host cannot speak against it', () => {
    expect(usable({ ...base, companyHost: null, value: 'quill@anywhere.example' }).ok).toBe(true);
  });
});
