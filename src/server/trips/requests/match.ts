import type { Answer, RecordView, Request } from '../../../core/engine';
import { compareCompanies, companyKeys, comparePeople, judgeMatch, personKeys, type Comparison } from '../../../core/match';
import { companiesByKeys, findCompany, findPerson, peopleByKeys } from '../../records/store/records';
import { saidDifferent } from '../../desk/store/reviews';
import type { HeldTrip } from '../store/trips';
import { found, type World } from '../../platform/world';

/** A record that was there well before the trip began came from the CRM: it is not asked to be "new". */
const KNOWN_BEFORE_MS = 3_600_000;

/** Compares the trip's person or company with everything in the CRM that shares a key, but for pairs a person has told apart. */
export async function match(
  world: World,
  held: HeldTrip,
  view: RecordView,
  request: Extract<Request, { kind: 'match' }>,
): Promise<Extract<Answer, { kind: 'match' }>> {
  const { db } = world;
  const id = request.target === 'person' ? view.person.id : (view.company?.id ?? '');
  const apart = new Set(await saidDifferent(db, id));
  let candidates: (Comparison & { readonly otherId: string; readonly name: string })[];
  let knownBefore: boolean;
  if (request.target === 'person') {
    const row = found(await findPerson(db, id), 'the person');
    const { name, email, otherEmail, phone, mobile, companyId, companyName } = row;
    const me = { id, name, email, otherEmail, phone, mobile, companyId, companyName };
    candidates = (await peopleByKeys(db, personKeys(me)))
      .filter((other) => other.id !== id && !apart.has(other.id))
      .map((other) => ({ ...comparePeople(me, other), otherId: other.id, name: other.name }));
    knownBefore = row.createdAt < held.createdAt - KNOWN_BEFORE_MS;
  } else {
    const row = found(await findCompany(db, id), 'the company');
    candidates = (await companiesByKeys(db, companyKeys(row)))
      .filter((other) => other.id !== id && !apart.has(other.id))
      .map((other) => ({ ...compareCompanies(row, other), otherId: other.id, name: other.name }));
    knownBefore = row.createdAt < held.createdAt - KNOWN_BEFORE_MS;
  }
  const verdict = judgeMatch(candidates, request.askAbove, request.sameAbove);
  const other = candidates.find((entry) => entry.otherId === verdict.otherId);
  return {
    kind: 'match',
    how: verdict.how === 'new' && knownBefore ? 'none' : verdict.how,
    otherId: verdict.otherId,
    otherName: other?.name ?? '',
    confidence: verdict.comparison?.confidence ?? 0,
    evidence: verdict.comparison?.evidence ?? [],
  };
}
