import type { JsonObject } from '../../../core/base';
import type { RecordView, Request, Verdict } from '../../../core/engine';
import type { Screen } from '../../../core/flow/syntax';
import { abusiveWords, disposableMailbox, parkedSite, roleMailbox, testEntry, type Screened } from '../../../core/reader';
import { WorldFailure } from '../../ports';
import { isDoNotContact } from '../../messages/store/do-not-contact';
import { overruled, sameBefore } from '../store/screening';
import { cachedPagesOf } from '../../platform/store/settings';
import type { HeldTrip } from '../store/trips';
import type { World } from '../../platform/world';
import { ENTRY_ID } from '../../intake/entries';
import { FRESH_MS, hostOf } from './read';

const AGAIN_DAYS = 30;
/** Shorter words are the same by chance. */
const SAME_WORDS_FROM = 40;
/** What belongs to this very arrival is not “again”. */
const JUST_NOW_MS = 5_000;

interface Subject {
  readonly world: World;
  readonly held: HeldTrip;
  readonly view: RecordView;
  readonly texts: readonly string[];
  /** the entry the trip came with */
  readonly own: string | null;
}

const text = (value: unknown): string => (typeof value === 'string' ? value : '');

/** What speaks against a record, before anything is spent on it. What a person has let through once is let through. */
export async function screen(
  world: World,
  held: HeldTrip,
  view: RecordView,
  request: Extract<Request, { kind: 'screen' }>,
): Promise<readonly Verdict[]> {
  const { [ENTRY_ID]: own, ...answers } = request.entry;
  const subject: Subject = { world, held, view, texts: textsOf(answers), own: typeof own === 'string' ? own : null };
  const verdicts: Verdict[] = [];
  for (const name of request.screens) {
    const found = await SCREEN[name](subject);
    if (found) verdicts.push({ screen: name, ...found });
  }
  const known = await overruled(world.db, verdicts);
  return verdicts.filter((verdict) => !known.has(verdict));
}

const textsOf = (entry: JsonObject): readonly string[] =>
  Object.values(entry).filter((value) => typeof value === 'string' && value !== '') as string[];

const SCREEN: { readonly [S in Screen]: (subject: Subject) => Promise<Screened | undefined> } = {
  'test entry': async ({ view, texts }) =>
    testEntry({ name: view.person.name, company: text(view.company?.name), email: text(view.person.email), texts }),
  'abusive words': async ({ texts }) => abusiveWords(texts),
  'disposable mailbox': async ({ view }) => disposableMailbox(text(view.person.email)),
  'role mailbox': async ({ view }) => roleMailbox(text(view.person.email)),
  'missing site': (subject) => siteVerdict(subject, 'missing'),
  'parked site': (subject) => siteVerdict(subject, 'parked'),
  customer: async ({ view }) =>
    view.company?.status === 'customer' ? { says: `${text(view.company.name)} is a customer`, about: view.company.id } : undefined,
  'do not contact': async ({ world, view }) => {
    const email = text(view.person.email);
    return (await isDoNotContact(world.db, email === '' ? null : email))
      ? { says: `${email} asked not to be written to`, about: email }
      : undefined;
  },
  'same again': sameAgain,
};

async function siteVerdict({ world, view }: Subject, which: 'missing' | 'parked'): Promise<Screened | undefined> {
  const website = text(view.company?.website);
  if (website === '') return undefined;
  const host = hostOf(website);
  const now = await world.clock.now();
  const [kept, ...more] = await cachedPagesOf(world.db, host, now - FRESH_MS);
  if (kept)
    return which === 'parked' && more.length === 0 ? parkedSite(host, kept.blocks.map((block) => block.text).join('\n')) : undefined;
  try {
    const page = await world.web.page(`http://${host}/`);
    return which === 'parked' ? parkedSite(host, page.blocks.map((block) => block.text).join('\n')) : undefined;
  } catch (error) {
    // A site that is down for a moment is no missing one: reading it will try again.
    if (!(error instanceof WorldFailure) || error.retryable) return undefined;
    return which === 'missing' ? { says: `${host} cannot be opened: ${error.message}`, about: host } : undefined;
  }
}

async function sameAgain({ world, held, view, texts, own }: Subject): Promise<Screened | undefined> {
  const longest = texts.reduce((best, one) => (one.length > best.length ? one : best), '');
  const before = await sameBefore(world.db, {
    personId: view.person.id,
    own,
    before: held.createdAt - JUST_NOW_MS,
    since: held.createdAt - AGAIN_DAYS * 86_400_000,
    longest: longest.length >= SAME_WORDS_FROM ? longest : '',
  });
  return before && { says: `they wrote by ${before.intake} on ${new Date(before.at).toISOString().slice(0, 10)}`, about: view.person.id };
}
