/** Answers to our mail against a key made by people: `npm run evaluate -- mail FOLDER KEY [--answers FILE]`. */
import fs from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { fold } from '../../core/base';
import { consequenceOf, parseDeliveryStatus, understandReply, written, type ReplyKind } from '../../core/reply';
import { readMail } from '../../server/box';

const entrySchema = z.looseObject({
  file: z.string(),
  in_reply_to_sent: z.string().nullable(),
  kind: z.string(),
  objection: z.string().nullable(),
  tone: z.string().optional(),
  stop_followups: z.string(),
  resume_on: z.string().nullable(),
  new_text: z.string().nullable(),
  referral: z.object({ name: z.string().nullable(), email: z.string().nullable() }).nullable().optional(),
  proposed_times: z.array(z.string()).optional(),
  accept: z.record(z.string(), z.array(z.unknown())).default({}),
});
type Entry = z.output<typeof entrySchema>;

/** The key's names of kinds. */
const NAMES: Readonly<Partial<Record<ReplyKind, string>>> = {
  'already customer': 'already_customer_or_applicant',
  'automatic receipt': 'auto_acknowledgement',
  bounce: 'bounce_hard',
  'soft bounce': 'bounce_soft',
  delayed: 'delayed_delivery',
  bulk: 'bulk_unrelated',
  thanks: 'thanks_only',
};
const nameOf = (kind: ReplyKind): string => NAMES[kind] ?? kind.replace(/ /g, '_');

interface Given {
  readonly file: string;
  readonly kind: string;
  readonly objection: string | null;
  readonly tone: string;
  readonly stop_followups: string;
  readonly resume_on: string | null;
  readonly new_text: string;
  readonly referral: { readonly name: string | null; readonly email: string | null } | null;
  readonly proposed_times: readonly string[];
  readonly sure: number;
}

/** What is understood of one mail; `sent`: the words of the mail of ours that it may answer. */
async function given(file: string, raw: Buffer, sent: ReadonlyMap<string, string>): Promise<Given> {
  const mail = await readMail(raw);
  const ours =
    [mail.inReplyTo, ...mail.references].map((id) => sent.get(id ?? '')).find((text) => text !== undefined) ?? sent.get(mail.from);
  const from = `${mail.fromName} <${mail.from}>`;
  const reading = understandReply({
    ...mail,
    from,
    at: mail.sentAt ?? 0,
    ...(mail.deliveryStatus && { status: parseDeliveryStatus(mail.deliveryStatus.status, mail.deliveryStatus.original) }),
    ...(ours !== undefined && { ours }),
  });
  return {
    file,
    kind: nameOf(reading.kind),
    objection: reading.objection,
    tone: reading.tone ?? 'neutral',
    stop_followups: consequenceOf(reading.kind).plan,
    resume_on: reading.when,
    new_text: written(mail.text, { from, ...(ours !== undefined && { ours }) }).text,
    referral: reading.named ?? null,
    proposed_times: reading.times ?? [],
    sure: reading.confidence,
  };
}

async function sentIn(folder: string): Promise<ReadonlyMap<string, string>> {
  const out = new Map<string, string>();
  if (!fs.existsSync(folder)) return out;
  for (const name of fs.readdirSync(folder)) {
    const mail = await readMail(fs.readFileSync(path.join(folder, name)));
    out.set(mail.messageId, mail.text);
  }
  return out;
}

const wordsIn = (text: string): readonly string[] => fold(text).match(/[\p{L}\p{N}]+/gu) ?? [];
/** Share of words that two texts have in common, as F1. */
export function sameWords(a: string, b: string): number {
  const left = new Map<string, number>();
  for (const word of wordsIn(a)) left.set(word, (left.get(word) ?? 0) + 1);
  let both = 0;
  for (const word of wordsIn(b)) {
    const n = left.get(word) ?? 0;
    if (n > 0) both += 1;
    left.set(word, n - 1);
  }
  const total = wordsIn(a).length + wordsIn(b).length;
  return total === 0 ? 1 : (2 * both) / total;
}

const accepted = (entry: Entry, field: keyof Entry): readonly unknown[] => [entry[field], ...(entry.accept[field] ?? [])];
const isDay = (day: string | null, spec: unknown): boolean => {
  if (typeof spec !== 'string' || day === null) return (spec ?? null) === day;
  const [from = '', to = from] = spec.split('..');
  return day >= from && day <= to;
};
/** A stop that was taken for something that goes on. */
const STOPS = new Set(['unsubscribe', 'bounce_hard', 'angry']);

export async function evaluateMail(folder: string, keyFile: string, answersFile: string | undefined): Promise<readonly string[]> {
  const entries = z.array(entrySchema).parse(JSON.parse(fs.readFileSync(keyFile, 'utf8')));
  const sent = await sentIn(path.join(path.dirname(keyFile), 'sent'));
  const all = await Promise.all(entries.map((entry) => given(entry.file, fs.readFileSync(path.join(folder, entry.file)), sent)));
  const say: string[] = [];
  const share = (name: string, right: readonly boolean[]): void => {
    say.push(
      `${name.padEnd(34)}${String(right.filter(Boolean).length).padStart(5)} of ${String(right.length).padStart(4)}  ${((right.filter(Boolean).length / Math.max(1, right.length)) * 100).toFixed(1).padStart(6)} %`,
    );
  };
  const pairs = entries.map((entry, i) => ({ entry, is: all[i] })).flatMap(({ entry, is }) => (is ? [{ entry, is }] : []));
  for (const { entry, is } of pairs)
    if (!accepted(entry, 'kind').includes(is.kind))
      say.push(`kind    ${entry.file}: ${entry.kind} expected, ${is.kind} given (${is.sure})`);
  share(
    'main kind',
    pairs.map(({ entry, is }) => accepted(entry, 'kind').includes(is.kind)),
  );
  const objections = pairs.filter(({ entry }) => entry.kind === 'objection');
  share(
    'objection',
    objections.map(({ entry, is }) => accepted(entry, 'objection').includes(is.objection)),
  );
  const toned = pairs.filter(({ entry }) => entry.tone !== undefined);
  if (toned.length > 0)
    share(
      'tone',
      toned.map(({ entry, is }) => accepted(entry, 'tone').includes(is.tone)),
    );
  share(
    'stop, pause, continue',
    pairs.map(({ entry, is }) => accepted(entry, 'stop_followups').includes(is.stop_followups)),
  );
  const days = pairs.filter(({ entry }) => entry.resume_on !== null);
  share(
    'day to write again, of all',
    days.map(({ entry, is }) => accepted(entry, 'resume_on').some((spec) => isDay(is.resume_on, spec))),
  );
  share(
    'day to write again, of given',
    pairs
      .filter(({ is }) => is.resume_on !== null)
      .map(({ entry, is }) => accepted(entry, 'resume_on').some((spec) => isDay(is.resume_on, spec))),
  );
  const isNamed = (spec: unknown, is: Given['referral']): boolean => {
    const wanted = spec as Given['referral'];
    if (!wanted || !is) return !wanted && !is;
    return (wanted.email ?? '') === (is.email ?? '') && fold(wanted.name ?? '') === fold(is.name ?? '');
  };
  // A key that says nothing of it is not asked.
  const named = pairs.filter(({ entry, is }) => entry.referral !== undefined && (entry.referral !== null || is.referral !== null));
  for (const { entry, is } of named)
    if (!accepted(entry, 'referral').some((spec) => isNamed(spec, is.referral)))
      say.push(`named   ${entry.file}: ${JSON.stringify(entry.referral)} expected, ${JSON.stringify(is.referral)} given`);
  share(
    'somebody named instead',
    named.map(({ entry, is }) => accepted(entry, 'referral').some((spec) => isNamed(spec, is.referral))),
  );
  const timed = pairs.filter(
    ({ entry, is }) => entry.proposed_times !== undefined && (entry.proposed_times.length > 0 || is.proposed_times.length > 0),
  );
  const isTimed = (spec: unknown, is: Given): boolean => JSON.stringify(spec) === JSON.stringify(is.proposed_times);
  for (const { entry, is } of timed)
    if (!accepted(entry, 'proposed_times').some((spec) => isTimed(spec, is)))
      say.push(`times   ${entry.file}: ${JSON.stringify(entry.proposed_times)} expected, ${JSON.stringify(is.proposed_times)} given`);
  share(
    'times proposed or taken',
    timed.map(({ entry, is }) => accepted(entry, 'proposed_times').some((spec) => isTimed(spec, is))),
  );
  const texts = pairs.filter(({ entry }) => entry.new_text !== null);
  const f1 = texts.map(({ entry, is }) =>
    Math.max(...accepted(entry, 'new_text').map((text) => sameWords(typeof text === 'string' ? text : '', is.new_text))),
  );
  say.push(
    `${'own words, F1 on average'.padEnd(34)}${((f1.reduce((a, b) => a + b, 0) / Math.max(1, f1.length)) * 100).toFixed(1).padStart(23)} %`,
  );
  const dangers = pairs.filter(({ entry, is }) => STOPS.has(entry.kind) && is.stop_followups !== 'stop');
  say.push(
    `${'stops that would go on'.padEnd(34)}${String(dangers.length).padStart(5)}${dangers.map(({ entry }) => `  ${entry.file}`).join('')}`,
  );
  const barred = pairs.filter(
    ({ entry, is }) =>
      ['unsubscribe', 'bounce_hard'].includes(is.kind) && !['unsubscribe', 'bounce_hard', 'angry', 'decline'].includes(entry.kind),
  );
  say.push(
    `${'live contacts barred'.padEnd(34)}${String(barred.length).padStart(5)}${barred.map(({ entry }) => `  ${entry.file}`).join('')}`,
  );
  if (answersFile !== undefined) fs.writeFileSync(answersFile, `${JSON.stringify(all, null, 2)}\n`);
  return say;
}
