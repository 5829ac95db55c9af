import type { Answer, RecordView, Request } from '../../../core/engine';
import { chooseCurrent, type Fact } from '../../../core/facts';
import { factsOf, trialFactsOf } from '../../records/store/facts';
import { recentLines } from '../../messages/store/messages';
import { listMailboxes } from '../../messages/store/mailboxes';
import { doNotContactAmong } from '../../messages/store/do-not-contact';
import { waysTo } from '../../messages/ways';
import { neverSaid } from '../../flows/things';
import { findPerson } from '../../records/store/records';
import { pageDeals } from '../../records/store/deals';
import type { HeldTrip } from '../store/trips';
import type { World } from '../../platform/world';

/** How many earlier messages of a text the "same line" check looks back on. */
export const LAST_LINES = 10;

/** What the writer needs: the current facts of person and company, the last personal lines of this text, and who signs. */
export async function compose(
  world: World,
  held: HeldTrip,
  view: RecordView,
  request: Extract<Request, { kind: 'compose' }>,
): Promise<Extract<Answer, { kind: 'compose' }>> {
  const { db } = world;
  const ids = [view.person.id, ...(view.company ? [view.company.id] : [])];
  const [stored, overlay, lines, person, deals, [mailbox]] = await Promise.all([
    factsOf(db, ids),
    held.trip.trial ? trialFactsOf(db, [held.trip.id]) : [],
    recentLines(db, request.template, LAST_LINES),
    findPerson(db, view.person.id),
    held.trip.dealId === null ? [] : pageDeals(db, { search: '', before: null, limit: 1, id: held.trip.dealId }),
    listMailboxes(db),
  ]);
  const signs = deals[0]?.ownerName ?? person?.ownerName ?? mailbox?.displayName ?? '';
  return {
    kind: 'compose',
    facts: currentFacts([...stored, ...overlay]),
    recentLines: lines,
    sender: { name: signs, first_name: signs.split(' ')[0] ?? '' },
    doNotContact: (await doNotContactAmong(db, waysTo(view.person))).size > 0,
    neverSay: await neverSaid(db),
  };
}

/** Of each field of each record the fact that counts. */
export function currentFacts(facts: readonly Fact[]): readonly Fact[] {
  const byField = new Map<string, Fact[]>();
  for (const fact of facts) {
    const key = `${fact.record.kind} ${fact.field}`;
    byField.set(key, [...(byField.get(key) ?? []), fact]);
  }
  return [...byField.values()].flatMap((list) => {
    const best = chooseCurrent(list);
    return best ? [best] : [];
  });
}
