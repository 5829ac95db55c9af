/**
 * Asking a described service from first call to last answer: at once or with a ticket, one page or several. It calls nobody:
 * it says what is called next, and what of the way must be remembered so that nothing is asked twice.
 */
import { z } from 'zod';
import type { Instant } from '../base';
import { textAt } from './pointer';
import { answerIn, callFor, doorOf, entriesIn, hasPages, plainCall, type Provider, type ProviderCall, type SlotValues } from './provider';

/** How far a question is. It is kept as JSON between one call and the next. */
export const progressSchema = z.object({
  /** set: the answer is collected with it */
  ticket: z.string().nullable(),
  since: z.number(),
  /** pages that were read */
  pages: z.number().int(),
  /** what leads to the next page */
  cursor: z.string(),
});
export type Progress = Readonly<z.infer<typeof progressSchema>>;
export const beginning = (now: Instant): Progress => ({ ticket: null, since: now, pages: 0, cursor: '' });

export interface Question {
  readonly values: SlotValues;
  readonly secret: string;
}

/** The call that a question needs now. */
export function nextCall(provider: Provider, question: Question, { ticket, pages, cursor }: Progress): ProviderCall {
  const values = { ...question.values, page: String(pages + 1), cursor, secret: question.secret };
  if (cursor !== '' && !takesMark(provider)) return plainCall(provider, cursor, { secret: question.secret });
  if (ticket === null || provider.later === null) return callFor(provider, values, question.secret);
  const { url } = provider.later;
  if (url === '{ticket}') return plainCall(provider, new URL(ticket, provider.url).href, { secret: question.secret });
  return plainCall(provider, url, { ...values, ticket });
}
/** What leads to the next page is a mark that is put in; else it is the page's address. */
const takesMark = ({ url, body, later }: Provider): boolean => `${url}${body}${later?.url ?? ''}`.includes('{cursor}');

export type Came =
  /** the answer is not there yet: come again after so long */
  | { readonly kind: 'wait'; readonly ms: number; readonly progress: Progress }
  /** entries of a page; `more` leads to the next */
  | { readonly kind: 'page'; readonly entries: readonly unknown[]; readonly more: Progress | null }
  | { readonly kind: 'failed'; readonly says: string };

/** What an answer means for the question. */
export function cameBack(provider: Provider, progress: Progress, answer: unknown, now: Instant): Came {
  const { later } = provider;
  if (later !== null && progress.ticket === null) {
    const ticket = textAt(answer, later.ticket);
    if (ticket === '') return { kind: 'failed', says: 'it gave no ticket to collect the answer with' };
    if (later.url === '{ticket}' && !leadsHome(provider, ticket))
      return { kind: 'failed', says: 'its ticket leads to another host: it was not followed' };
    return { kind: 'wait', ms: later.everyS * 1_000, progress: { ...progress, ticket } };
  }
  if (later !== null && progress.pages === 0) {
    const state = textAt(answer, later.state);
    if (later.failed !== '' && state === later.failed) return { kind: 'failed', says: `it says “${state}”` };
    if (!isReady(provider, state, answer)) {
      if (now - progress.since >= later.atMostS * 1_000) return { kind: 'failed', says: `it had no answer after ${later.atMostS} s` };
      return { kind: 'wait', ms: later.everyS * 1_000, progress };
    }
  }
  const entries = entriesIn(provider, answer);
  return { kind: 'page', entries, more: nextPage(provider, progress, answer, entries.length) };
}

function isReady(provider: Provider, state: string, answer: unknown): boolean {
  if (provider.later !== null && provider.later.state !== '') return state === provider.later.ready;
  return provider.list === '' ? answerIn(provider, answer).value !== null : entriesIn(provider, answer).length > 0;
}

/** Null: it was the last one, or as many were read as may be. A page elsewhere is not followed: the key is for one host. */
function nextPage(provider: Provider, progress: Progress, answer: unknown, entries: number): Progress | null {
  const pages = progress.pages + 1;
  if (pages >= provider.mostPages) return null;
  if (provider.next === '') return hasPages(provider) && entries > 0 ? { ...progress, pages, cursor: '' } : null;
  const next = textAt(answer, provider.next);
  if (next === '' || next === 'false') return null;
  if (!takesMark(provider) && !leadsHome(provider, next)) return null;
  const cursor = takesMark(provider) ? next : new URL(next, provider.url).href;
  return cursor === progress.cursor ? null : { ...progress, pages, cursor };
}
const leadsHome = (provider: Provider, to: string): boolean =>
  URL.canParse(to, provider.url) && doorOf(new URL(to, provider.url).href) === doorOf(new URL(provider.url).href);
