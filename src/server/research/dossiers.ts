/**
 * Dossiers: asked for by a person or a flow, made in the background, kept as they were made. Promises: the steps are told
 * while it is made; what was read becomes facts of the record like any other reading.
 */
import { plural, stableId, type Instant } from '../../core/base';
import { unitOf, type Answer } from '../../core/engine';
import { dossierMarkdown, dossierSchema, makeDossier, type Dossier, type DossierDocument } from '../../core/dossier';
import type { Fact } from '../../core/facts';
import type { Question } from '../../core/flow/syntax';
import { SOURCE_NAMES, WorldFailure } from '../ports';
import type { Tx } from '../db';
import { claimDossier, dossiersOf, endDossier, findDossier, insertDossier, stepDossier, type DossierRow } from './store/dossiers';
import { factsOf } from '../records/store/facts';
import { listMailboxes } from '../messages/store/mailboxes';
import { isDoNotContact } from '../messages/store/do-not-contact';
import { applicationsOf, listOpenings } from '../intake/store/openings';
import { LeaseLost } from '../platform/store/lease';
import { insertCall } from '../trips/store/outbox';
import { addressKnown, findCompany, findPerson, type CompanyRow, type PersonRow } from '../records/store/records';
import { documentsOf } from './store/research';
import { cachedPagesOf } from '../platform/store/settings';
import { insertAudit } from '../access/store/audit';
import { insertHappenings } from '../records/store/timeline';
import { wakeWorkers } from '../platform/store/wake';
import { loadCatalogue } from '../records/fields';
import { HeldBack } from '../workspace/connections';
import { keepAnswers } from './recheck';
import { askedOf, standingQuestions } from './questions';
import { FRESH_MS, hostOf, read } from '../trips/requests/read';
import { SOURCE_KIND } from '../trips/requests/sources';
import { found, Refusal, type Actor, type World } from '../platform/world';

const LEASE_MS = 60_000;
const MAX_PAGES = 12;
const KEPT = 12;

interface Subject {
  readonly kind: 'person' | 'company';
  readonly id: string;
  readonly person: PersonRow | null;
  readonly company: CompanyRow | null;
}

async function subjectOf(tx: Tx, kind: 'person' | 'company', id: string): Promise<Subject> {
  if (kind === 'company') return { kind, id, person: null, company: found(await findCompany(tx, id), 'this company') };
  const person = found(await findPerson(tx, id), 'this person');
  return { kind, id, person, company: person.companyId === null ? null : ((await findCompany(tx, person.companyId)) ?? null) };
}

/** Asks for a dossier; one that is being made already is that one. */
export async function askDossier(
  world: World,
  actor: Actor,
  ask: { readonly kind: 'person' | 'company'; readonly id: string; readonly afresh: boolean; readonly mailTo: string | null },
): Promise<{ readonly id: string }> {
  const subject = await subjectOf(world.db, ask.kind, ask.id);
  if (subject.person === null && subject.company === null) throw new Refusal('not valid', 'there is nobody to research');
  const [open] = (await dossiersOf(world.db, ask.id, 1)).filter((row) => row.state === 'queued' && row.mailTo === ask.mailTo);
  if (open) return { id: open.id };
  const id = world.newId();
  await insertDossier(
    world.db,
    { id, recordKind: ask.kind, recordId: ask.id, afresh: ask.afresh, mailTo: ask.mailTo, createdBy: actor.userId },
    await world.clock.now(),
  );
  await wakeWorkers(world.db);
  return { id };
}

/** Works on dossiers that are due. Returns how many were moved. */
export async function makeDossiers(world: World): Promise<number> {
  const row = await claimDossier(world.db, await world.clock.now(), LEASE_MS);
  if (!row) return 0;
  const began = performance.now();
  const took = (): number => Math.round(performance.now() - began);
  try {
    await research(world, row, took);
  } catch (error) {
    if (error instanceof LeaseLost) throw error;
    if (error instanceof HeldBack) {
      await stepDossier(world.db, row, 'searches are under way', error.until, took());
      return 1;
    }
    const problem = error instanceof WorldFailure || error instanceof Refusal ? error.message : 'something broke inside Millrace';
    if (!(error instanceof WorldFailure) && !(error instanceof Refusal))
      world.log.error('a dossier broke', { dossier: row.id, error: String(error) });
    await endDossier(
      world.db,
      row,
      { state: 'failed', content: null, pages: 0, costMicro: 0, tookMs: took(), problem },
      await world.clock.now(),
    );
  }
  return 1;
}

async function research(world: World, row: DossierRow, took: () => number): Promise<void> {
  const subject = await subjectOf(world.db, row.recordKind, row.recordId);
  const questions = await standingQuestions(world.db);
  await stepDossier(world.db, row, subject.company?.website ? `reading ${subject.company.website}` : 'searching', null, 0);
  const answer = await askAround(world, row, subject, questions);
  const now = await world.clock.now();
  if (subject.company) await keepAnswers(world, subject.company, answer, now);
  const dossier = await compileDossier(world, subject, questions, now);
  await world.db.begin(async (tx) => {
    await endDossier(
      tx,
      row,
      { state: 'done', content: dossier, pages: answer.pages, costMicro: answer.costMicro, tookMs: took(), problem: null },
      now,
    );
    await insertHappenings(tx, [
      {
        recordKind: subject.kind,
        recordId: subject.id,
        at: now,
        kind: 'read',
        says: answer.pages === 0 ? 'dossier made of what we know' : `dossier made from ${plural(answer.pages, 'page')}`,
        detail: { dossier: row.id },
      },
    ]);
    if (row.mailTo !== null) await mailDossier(tx, row.id, row.mailTo, dossier, now);
  });
}

/** The company's standing questions at every place, and the person's profile beside them. */
async function askAround(
  world: World,
  row: DossierRow,
  subject: Subject,
  questions: readonly Question[],
): Promise<Extract<Answer, { kind: 'read' }>> {
  const { company, person } = subject;
  const ask = {
    kind: 'read' as const,
    companyName: company?.name ?? null,
    website: company?.website ?? null,
    maxPages: MAX_PAGES,
    maxCostMicro: null,
  };
  const reading = { held: null, afresh: row.afresh ? row.id : null };
  const asks = [
    ...(company
      ? [
          {
            ...ask,
            target: { kind: 'company' as const, id: company.id },
            personName: null,
            places: ['website', ...SOURCE_NAMES],
            questions,
          },
        ]
      : []),
    ...(person
      ? [{ ...ask, target: { kind: 'person' as const, id: person.id }, personName: person.name, places: ['people'], questions: [] }]
      : []),
  ];
  // All begin before any is waited for, so that no search waits for another.
  const settled = await Promise.allSettled(asks.map((one) => read(world, one, reading)));
  const broken = settled.flatMap((one) => (one.status === 'rejected' ? [one.reason as unknown] : []));
  const wait = broken.find((error) => error instanceof HeldBack);
  if (broken.length > 0) throw wait ?? broken[0];
  const answers = settled.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
  const [first] = answers;
  if (!first) throw new Refusal('not valid', 'there is nobody to research');
  return {
    ...first,
    pages: answers.reduce((sum, one) => sum + one.pages, 0),
    costMicro: answers.reduce((sum, one) => sum + one.costMicro, 0),
  };
}

/** The dossier of what is known now; asks nothing outside. */
export async function compileDossier(world: World, subject: Subject, questions: readonly Question[], now: Instant): Promise<Dossier> {
  const { company, person } = subject;
  const ids = [company?.id, person?.id].filter((id) => id !== undefined);
  const [catalogue, about, facts, applications, searched, pages] = await Promise.all([
    loadCatalogue(world.db),
    askedOf(world, questions),
    factsOf(world.db, ids),
    person === null ? [] : applicationsOf(world.db, { personId: person.id }, KEPT),
    documentsOf(world.db, ids),
    company?.website == null ? [] : cachedPagesOf(world.db, hostOf(company.website), now - FRESH_MS),
  ]);
  const of = (kind: 'person' | 'company', key: string): readonly Fact[] =>
    facts.filter((fact) => fact.record.kind === kind && fact.field === key);
  const seen = new Set<string>();
  const documents: DossierDocument[] = [
    ...pages.map((page) => ({ source: 'site' as const, ...page })),
    ...searched.flatMap((search) =>
      search.documents.map((document) => ({ source: SOURCE_KIND[search.source as keyof typeof SOURCE_KIND], ...document })),
    ),
  ].filter((document) => !seen.has(document.url) && seen.add(document.url));
  const papers = catalogue
    .all('person')
    .filter((field) => field.group === 'Candidate' || field.key === 'job_title')
    .map((field) => ({ field, facts: of('person', field.key) }));
  const isCandidate = applications.length > 0 || papers.some(({ field, facts }) => field.group === 'Candidate' && facts.length > 0);
  const criteria = new Map((await listOpenings(world.db)).map((opening) => [opening.id, opening.criteria]));
  return makeDossier({
    name: company?.name ?? null,
    person: person === null ? null : { name: person.name, role: person.jobTitle },
    place: [company?.city, company?.country].filter(Boolean).join(', ') || null,
    status: person?.status ?? company?.status ?? null,
    fields: catalogue
      .all('company')
      .filter((field) => field.key !== 'name')
      .map((field) => ({ field, facts: of('company', field.key) })),
    asked: questions.map((question) => ({
      id: question.id.text,
      wording: question.wording.text,
      unit: unitOf(question.type),
    })),
    about,
    documents,
    candidate: isCandidate
      ? {
          papers,
          applies: applications.map(({ openingId, openingName, stage }) => ({
            opening: openingName,
            stage,
            criteria: criteria.get(openingId) ?? [],
          })),
        }
      : null,
    doNotContact: await isDoNotContact(world.db, person?.email ?? null),
    now,
  });
}

async function mailDossier(tx: Tx, id: string, to: string, dossier: Dossier, now: Instant): Promise<void> {
  const [mailbox] = await listMailboxes(tx);
  await insertCall(
    tx,
    {
      id: stableId('dossier mail', id, to),
      kind: 'tell',
      tripId: null,
      personId: null,
      payload: {
        mail: { to, name: to, from: mailbox?.address ?? '', fromName: mailbox?.displayName ?? '' },
        text: `Dossier: ${dossier.title}\n\n${dossierMarkdown(dossier)}`,
        dossier: id,
      },
    },
    now,
  );
}

export interface DossierView {
  readonly id: string;
  readonly state: 'queued' | 'done' | 'failed';
  readonly step: string;
  readonly problem: string | null;
  readonly pages: number;
  readonly costMicro: number;
  readonly tookMs: number;
  readonly createdAt: Instant;
  readonly createdByName: string | null;
  readonly content: Dossier | null;
}

function viewOf(row: DossierRow): DossierView {
  const content = dossierSchema.safeParse(row.content);
  const { id, state, step, problem, pages, costMicro, tookMs, createdAt, createdByName } = row;
  return { id, state, step, problem, pages, costMicro, tookMs, createdAt, createdByName, content: content.success ? content.data : null };
}

/** A record's dossiers, newest first, with the names its page needs. */
export async function dossierPage(
  world: World,
  kind: 'person' | 'company',
  id: string,
): Promise<{
  readonly name: string;
  readonly company: { readonly id: string; readonly name: string } | null;
  readonly dossiers: readonly DossierView[];
}> {
  const subject = await subjectOf(world.db, kind, id);
  return {
    name: subject.person?.name ?? subject.company?.name ?? '',
    company: subject.company && { id: subject.company.id, name: subject.company.name },
    dossiers: (await dossiersOf(world.db, id, KEPT)).map(viewOf),
  };
}

export async function dossier(world: World, id: string): Promise<DossierView> {
  return viewOf(found(await findDossier(world.db, id), 'this dossier'));
}

/** A dossier as a file, named after whom it is about and the day. */
export async function dossierFile(
  world: World,
  id: string,
  as: 'pdf' | 'markdown',
): Promise<{ readonly name: string; readonly type: string; readonly content: string | Uint8Array }> {
  const { content } = await dossier(world, id);
  if (!content) throw new Refusal('conflict', 'this dossier is not ready');
  const name = `${content.title.replace(/[^\p{L}\p{N} ,.-]/gu, '')} ${new Date(content.madeAt).toISOString().slice(0, 10)}`;
  return as === 'pdf'
    ? { name: `${name}.pdf`, type: 'application/pdf', content: await world.papers.dossier(content) }
    : { name: `${name}.md`, type: 'text/markdown; charset=utf-8', content: dossierMarkdown(content) };
}

/** Sends a ready dossier to a colleague. */
export async function sendDossier(
  world: World,
  actor: Actor,
  id: string,
  ask: { readonly to: string; readonly confirm?: string | undefined },
): Promise<void> {
  const { content } = await dossier(world, id);
  if (!content) throw new Refusal('conflict', 'this dossier is not ready');
  const to = ask.to.toLowerCase();
  const known = await addressKnown(world.db, to);
  if (known === null && ask.confirm?.toLowerCase() !== to)
    throw new Refusal('conflict', `nobody here is known by ${ask.to}: confirm the address to send what we know about them there`, {
      confirm: ask.to,
    });
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await mailDossier(tx, id, ask.to, content, now);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'sent a dossier',
      detail: { to: ask.to, who: known ?? 'confirmed by hand', about: content.title },
    });
  });
}
