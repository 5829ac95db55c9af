import type { Instant } from '../base';
import type { FactDraft } from '../facts';
import type { Catalogue } from '../fields';
import type { AnswerType } from '../flow/syntax';
import type { Finding, Stated } from './types';

/** What a figure is measured in, when the answer is one. */
export function unitOf(type: AnswerType | undefined): string | null {
  return type?.kind === 'number' ? (type.unit ?? null) : type?.kind === 'money' ? type.currency : null;
}

/**
 * The facts of a record that a reading found: for each field that was asked for the value taken, and beside it what else was
 * stated, since a conflict is shown and never lost. A fact is as old as its statement, where that has a day; what was looked for in
 * vain has no page, and then `site` stands for where: the site, or the document by its name.
 */
export function factsFound(
  findings: readonly Finding[],
  record: FactDraft['record'],
  site: string | null,
  now: Instant,
  fields: Catalogue,
): readonly FactDraft[] {
  const draft = (field: string, stated: Stated): FactDraft => ({
    record,
    field,
    value: stated.value,
    source: stated.source,
    // A document is known by its name, a page by its address.
    sourceRef: (stated.source === 'document' ? site : stated.url) ?? site ?? stated.source,
    confidence: stated.confidence,
    observedAt: Math.min(now, stated.date ?? now),
    ...(stated.quote === null ? {} : { quote: stated.quote }),
    ...(stated.url === null ? {} : { url: stated.url }),
  });
  return findings
    .filter((finding) => fields.of(record.kind, finding.id) !== undefined)
    .flatMap((finding) => [finding, ...finding.others].map((stated) => draft(finding.id, stated)));
}
