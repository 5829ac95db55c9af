/** A touch's own condition, looked at in the moment it is due. Promises: what cannot be told does not hold. */
import type { Instant } from '../../core/base';
import { compileFeel, parseFeel, type FeelScope } from '../../core/feel';
import type { Tx } from '../db';
import { loadDeals } from '../records/store/deals';
import { loadViews } from '../records/store/records';
import { dealOfTrip } from './store/messages';
import { doneInThread } from './store/tasks';
import { workspace } from '../platform/world';

interface Conditioned {
  readonly onlyWhen: string | null;
  readonly personId: string | null;
  readonly threadId: string | null;
  readonly tripId: string | null;
}

export async function touchHolds(tx: Tx, touch: Conditioned, now: Instant): Promise<boolean> {
  if (touch.onlyWhen === null) return true;
  const { expr } = parseFeel(touch.onlyWhen);
  if (!expr || touch.personId === null) return false;
  const view = (await loadViews(tx, [touch.personId])).get(touch.personId);
  if (!view) return false;
  const dealId = touch.tripId === null ? null : await dealOfTrip(tx, touch.tripId);
  const deal = dealId === null ? null : ((await loadDeals(tx, [dealId], now, (await workspace(tx)).zone)).get(dealId) ?? null);
  const done = touch.threadId === null ? { mails: 0, calls: 0, talked: 0 } : await doneInThread(tx, touch.threadId);
  const scope: FeelScope = { ...(view.person as FeelScope), company: view.company, deal, done };
  return compileFeel(expr)(scope) === true;
}
