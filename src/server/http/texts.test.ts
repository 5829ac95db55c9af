/** One kind of text: whatever letters come to a door, what is kept behind it is valid, without NUL, in normal form C, and within its limit. */
import fc from 'fast-check';
import { demoWorld, type TestWorld } from '../../testing/world';
import { cleanJson, cleanText, cutText, isClean } from '../../core/base';
import { readTable } from '../../core/intake';
import { openBox } from '../box';
import { plainName } from '../intake/entry-files';
import { createWebhookIntake, webhookIntakes } from '../intake/webhook-intakes';
import { BODY_LIMITS, readJson } from './body';
import { answerForm, answerPosting } from './doors';

/** Letters of every kind, with what breaks stores and screens among them: NUL, halves of pairs, marks that combine, joiners. */
const letters = fc
  .array(
    fc.oneof(
      fc.string({ unit: 'binary', maxLength: 4 }),
      fc.constantFrom('\u0000', '\ud800', '\udfff', '\ud83d', 'e\u0301', '\u200d', '\ufeff', '\u202e', '👩‍🌾', 'ﬁ', 'x'),
    ),
    { maxLength: 40 },
  )
  .map((parts) => parts.join(''));
const clean = (value: unknown): boolean => {
  if (typeof value === 'string') return isClean(value);
  if (typeof value !== 'object' || value === null) return true;
  return Object.entries(value).every(([key, inner]) => isClean(key) && clean(inner));
};

test('clean text stays as it is; any text becomes clean', () => {
  fc.assert(
    fc.property(letters, (text) => {
      const once = cleanText(text);
      expect(once.isWellFormed() && !once.includes('\u0000') && once.normalize('NFC') === once).toBe(true);
      expect(cleanText(once)).toBe(once);
    }),
  );
});

test('a cut never falls inside a letter, and never makes a text longer', () => {
  fc.assert(
    fc.property(letters, fc.integer({ min: 1, max: 30 }), (text, max) => {
      const short = cutText(cleanText(text), max);
      expect(short.length).toBeLessThanOrEqual(max);
      expect(short.isWellFormed()).toBe(true);
    }),
  );
  expect(cutText('a👩‍🌾b', 4)).toBe('a');
  expect(cutText('ab\u0301', 2)).toBe('a');
});

test('the API: bodies, their names too', async () => {
  await fc.assert(
    fc.asyncProperty(fc.dictionary(letters, letters), async (value) => {
      const read = await readJson(new Request('http://a.example/', { method: 'POST', body: JSON.stringify(value) }), BODY_LIMITS.json);
      expect(clean(read)).toBe(true);
    }),
  );
});

test('pages, mails, documents, lists and names of files', async () => {
  await fc.assert(
    fc.asyncProperty(letters, async (text) => {
      const bytes = Buffer.from(`<title>${text}</title><p>${text}</p>`);
      expect(clean(await openBox.run('page', { url: 'http://a.example/', status: 200, type: 'text/html', bytes }))).toBe(true);
      expect(clean(await openBox.run('document', { kind: 'text', bytes: Buffer.from(text) }))).toBe(true);
      const { files: _, ...mail } = await openBox.run('mail', {
        bytes: Buffer.concat([
          Buffer.from(`From: ${text} <a@b.example>\r\nSubject: ${text}\r\n\r\n${text}`),
          Buffer.from([0, 255, 237, 160, 128]),
        ]),
      });
      expect(clean(mail)).toBe(true);
      expect(clean(readTable(Buffer.from(`name,city\n"${text.replaceAll('"', '')}",x\n`)).table?.rows ?? [])).toBe(true);
      expect(isClean(plainName(text))).toBe(true);
      expect(clean(cleanJson({ [text]: [text] }))).toBe(true);
    }),
    { numRuns: 60 },
  );
});

describe('doors that keep what comes', () => {
  let world: TestWorld;
  beforeAll(async () => {
    ({ world } = await demoWorld());
  });
  afterAll(() => world.close());

  test('postings and forms', async () => {
    const { token } = await createWebhookIntake(world, { userId: null, name: 'x' }, 'Letters');
    const slug = (await webhookIntakes(world)).find((door) => door.name === 'Letters')?.slug ?? '';
    await fc.assert(
      fc.asyncProperty(letters, letters, async (name, value) => {
        const posted = new Request('http://a.example/', {
          method: 'POST',
          headers: { authorization: `Bearer ${token}` },
          body: JSON.stringify({ person: { [`n${name}`]: value, email: 'a@b.example' } }),
        });
        expect((await answerPosting(world, posted, slug)).status).toBeLessThan(500);
        const form = new FormData();
        form.set('a.company', value.toWellFormed());
        form.set(`a.${name.toWellFormed()}`, value.toWellFormed());
        expect(
          (await answerForm(world, new Request('http://a.example/', { method: 'POST', body: form }), 'project-enquiry')).status,
        ).toBeLessThan(500);
      }),
      { numRuns: 40 },
    );
    const kept = await world.db<{ raw: unknown; answers: unknown }[]>`select raw, answers from intake_entry`;
    expect(kept.length).toBeGreaterThan(10);
    expect(kept.every(clean)).toBe(true);
  });
});
