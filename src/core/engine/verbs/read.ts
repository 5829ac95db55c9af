import { z } from 'zod';
import { durationMs, plural, type JsonObject } from '../../base';
import { SOURCE_KINDS, SOURCE_LABELS } from '../../facts';
import type { Instruction } from '../../flow/plan';
import type { StepOf } from '../../flow/syntax';
import type { Run } from '../run';
import { factsFound, unitOf } from '../stated';
import { recorded, type AnswerOf, type RunOf, type Upcaster } from './verb';

type Read = StepOf<'read'>;

const stated = z.object({
  value: z.union([z.string(), z.number(), z.boolean(), z.null()]),
  quote: z.string().nullable().default(null),
  url: z.string().nullable().default(null),
  source: z.enum(SOURCE_KINDS),
  confidence: z.number().default(0),
  date: z.number().nullable().default(null),
});
const detail = z.object({
  findings: z.array(
    stated.extend({ id: z.string(), found: z.boolean(), says: z.string().default(''), unit: z.string().nullable().default(null) }),
  ),
  pages: z.number().default(0),
  /** the day of the reading whose answers were taken over */
  reusedFrom: z.number().optional(),
});

const findingsOf = (kept: JsonObject): readonly JsonObject[] =>
  Array.isArray(kept.findings) ? (kept.findings as readonly JsonObject[]) : [];
/** Before news and registers were read, what was found was found on the site, and nothing said so. */
const withoutSource: Upcaster = {
  name: 'findings without a source',
  lift: (kept) =>
    findingsOf(kept).every((finding) => typeof finding.source === 'string')
      ? kept
      : { ...kept, findings: findingsOf(kept).map((finding) => ({ source: 'site', ...finding })) },
};
const older = [withoutSource];

export const read = {
  verb: 'read',
  run(step, line, run) {
    const { person, company } = run.view;
    const ofPerson = step.target.text === 'person';
    const site = typeof company?.website === 'string' && company.website !== '' ? company.website : null;
    const places = step.places.map((place) => place.text).filter((place) => place !== 'website' || site !== null);
    if (places.length === 0 || (!ofPerson && company === null)) {
      if (step.as) run.vars[step.as.text] = Object.fromEntries(step.questions.map((question) => [question.id.text, null]));
      run.log(line, 'passed', 'no site to read: nothing found', { findings: [], pages: 0 });
      run.pass(line);
      return;
    }
    run.request = {
      kind: 'read',
      target: ofPerson ? { kind: 'person', id: person.id } : { kind: 'company', id: company?.id ?? '' },
      companyName: typeof company?.name === 'string' ? company.name : null,
      personName: ofPerson ? person.name : null,
      website: site,
      places,
      questions: step.questions,
      maxPages: step.maxPages?.value ?? 8,
      maxCostMicro: step.maxCost === undefined ? null : Math.round(step.maxCost.value * 1_000_000),
      ...(step.noOlder && { noOlderMs: durationMs(step.noOlder.duration) }),
    };
  },
  asks: {
    kind: 'read',
    answered: wasRead,
    replayed({ questions }, readings, missing) {
      const found = recorded(readings, 'read', detail, older).flatMap((entry) => entry.findings);
      const findings = questions.map(({ id }) => {
        const known = found.find((entry) => entry.id === id.text);
        if (!known) missing.push(id.text);
        const nothing = { found: false, value: null, quote: null, url: null, source: 'site' as const, date: null, confidence: 0 };
        return { ...(known ?? nothing), id: id.text, others: [], says: known ? 'as it was read then' : 'never asked before' };
      });
      return { kind: 'read', findings, pages: 0, tookMs: 0, costMicro: 0, says: `${plural(findings.length, 'answer')} as read then` };
    },
  },
  wakes: null,
  detail,
  older,
} satisfies RunOf<Read>;

function wasRead(answer: AnswerOf<'read'>, step: Read, line: Instruction, run: Run): void {
  const kind = step.target.text === 'person' ? 'person' : 'company';
  const record = kind === 'person' ? run.view.person : run.view.company;
  const site = run.view.company?.website;
  const facts = record
    ? factsFound(answer.findings, { kind, id: record.id }, typeof site === 'string' ? site : null, run.now, run.fields)
    : [];
  if (facts.length > 0) {
    run.commands.push({ kind: 'record facts', mark: line.mark, facts });
    run.reload = true;
  }
  const fresh = answer.fresh ?? [];
  if (step.as)
    run.vars[step.as.text] = {
      ...Object.fromEntries(answer.findings.map((finding) => [finding.id, finding.value])),
      changes: fresh.length,
      news: fresh.map((entry) => `${SOURCE_LABELS[entry.source]}: ${entry.title}`).join('; '),
    };
  run.log(
    line,
    'passed',
    saysOf(answer),
    {
      findings: answer.findings.map((finding, i) => ({
        ...finding,
        others: finding.others.map((other) => ({ ...other })),
        unit: unitOf(step.questions[i]?.type) ?? run.fields.of(kind, finding.id)?.unit ?? null,
      })),
      places: step.places.map((place) => place.text),
      pages: answer.pages,
      ...(fresh.length > 0 && { fresh: fresh.map((entry) => ({ ...entry })) }),
      ...(answer.reusedFrom !== undefined && { reusedFrom: answer.reusedFrom }),
    },
    answer,
  );
  run.pass(line);
}

function saysOf({ findings, pages, fresh = [], says, reusedFrom }: AnswerOf<'read'>): string {
  const found = findings.filter((finding) => finding.found).length;
  return [
    `${found} of ${plural(findings.length, 'answer')} from ${plural(pages, 'page')}`,
    ...(fresh.length > 0 ? [`${fresh.length} new since the last reading`] : []),
    ...(says ? [says] : []),
    ...(reusedFrom === undefined ? [] : ['as read before']),
  ].join(' · ');
}
