/** One fact looked for again, now, where it can be answered at once. */
import type { Instant } from '../../core/base';
import { factsFound, type Answer } from '../../core/engine';
import { labelOf, printValue } from '../../core/fields';
import { WorldFailure } from '../ports';
import { findCompany, type CompanyRow } from '../records/store/records';
import { loadCatalogue } from '../records/fields';
import { recordFacts } from '../records/facts';
import { standingQuestions } from './questions';
import { read } from '../trips/requests/read';
import { found, Refusal, type World } from '../platform/world';

const MAX_PAGES = 12;

/** What was answered about a company as facts of it, the values not taken among them. */
export async function keepAnswers(
  world: World,
  company: Pick<CompanyRow, 'id' | 'website'>,
  answer: Extract<Answer, { kind: 'read' }>,
  now: Instant,
): Promise<void> {
  const facts = factsFound(answer.findings, { kind: 'company', id: company.id }, company.website, now, await loadCatalogue(world.db));
  await world.db.begin((tx) =>
    recordFacts(
      tx,
      facts.map((fact) => ({ fact, meta: { tripId: null, mark: null, userId: null } })),
    ),
  );
}

/** Reads the company's site afresh for the one question that fills this field, and keeps what it says. */
export async function recheckFact(
  world: World,
  companyId: string,
  field: string,
): Promise<{ readonly found: boolean; readonly says: string }> {
  const company = found(await findCompany(world.db, companyId), 'this company');
  const { website } = company;
  if (website === null) throw new Refusal('not valid', 'no site of theirs is known: nothing can be read again');
  const fields = await loadCatalogue(world.db);
  const question = (await standingQuestions(world.db)).find((entry) => entry.id.text === field);
  if (!question) throw new Refusal('not valid', `no standing question asks for “${labelOf(fields.of('company', field), field)}”`);
  const now = await world.clock.now();
  try {
    const answer = await read(
      world,
      {
        kind: 'read',
        target: { kind: 'company', id: company.id },
        companyName: company.name,
        personName: null,
        website,
        places: ['website'],
        questions: [question],
        maxPages: MAX_PAGES,
        maxCostMicro: null,
      },
      { held: null, afresh: world.newId() },
    );
    await keepAnswers(world, company, answer, now);
    const [finding] = answer.findings;
    const unit = fields.of('company', field)?.unit;
    return finding?.found === true
      ? { found: true, says: `their site says ${printValue(finding.value, unit)}` }
      : { found: false, says: finding?.says ?? answer.says };
  } catch (error) {
    if (error instanceof WorldFailure) throw new Refusal('conflict', `${error.message}: what was known stays`);
    throw error;
  }
}
