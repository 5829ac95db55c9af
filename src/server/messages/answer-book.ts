/** The book of answers as it is used: what was agreed, how often it led on, and what people ask that nobody has agreed an answer to. */
import type { AnswerBookView } from '../../api';
import type { Instant } from '../../core/base';
import { agreedAnswerSchema, candidatesFor, draftReply, isObjection, saidIn, type AgreedAnswer, type Statement } from '../../core/answers';
import { languageOf } from '../../core/reader';
import type { ReplyReading } from '../../core/reply';
import type { Tx } from '../db';
import { answerCounts, answeredWith, askedSince, insertQuestions, type AskedRow } from './store/answers';
import { findThing, listThings } from '../flows/store/things';
import { NOTHING_READ } from './answer-standing';
import { statements } from '../flows/things';
import { found, type World } from '../platform/world';

/** Keeps the questions of a mail that came in, word for word. */
export async function keepQuestions(
  tx: Tx,
  mail: { readonly messageId: string; readonly personId: string | null; readonly words: string; readonly reading: ReplyReading },
  now: Instant,
): Promise<void> {
  const questions = saidIn(mail.words, mail.reading).filter((said) => said.kind === 'question');
  await insertQuestions(
    tx,
    mail.messageId,
    mail.personId,
    questions.map((said) => said.words.slice(0, 500)),
    now,
  );
}

const YEAR_MS = 365 * 86_400_000;
const MOST_ASKED = 2_000;

/** The book: every agreed answer with how often it was used and led on, and the questions nobody has agreed an answer to. */
export async function answerBook(world: World): Promise<AnswerBookView> {
  const now = await world.clock.now();
  const [rows, counts, asked, said] = await Promise.all([
    listThings(world.db, 'answer'),
    answerCounts(world.db),
    askedSince(world.db, now - YEAR_MS, MOST_ASKED),
    statements(world.db),
  ]);
  const byId = new Map(counts.map((count) => [count.itemId, count]));
  const items = rows.flatMap((row) => {
    const read = agreedAnswerSchema.safeParse(row.body);
    if (!read.success) return [];
    const { about, when, texts } = read.data;
    const { used = 0, led = 0 } = byId.get(row.id) ?? {};
    return [
      {
        id: row.id,
        name: row.name,
        about,
        isObjection: isObjection(about),
        when,
        first: texts[0]?.body ?? '',
        languages: texts.map((text) => text.language),
        used,
        led,
        retired: row.retired,
        savedBy: row.savedBy,
        savedAt: row.savedAt,
      },
    ];
  });
  const inUse = rows.flatMap((row) => (row.retired ? [] : (agreedAnswerSchema.safeParse(row.body).data ?? [])));
  return { items, waiting: waiting(asked, inUse, said) };
}

/** Questions without an agreed answer, those that are put alike together, the most asked first. */
function waiting(asked: readonly AskedRow[], answers: readonly AgreedAnswer[], said: readonly Statement[]): AnswerBookView['waiting'] {
  const groups: { words: string; key: ReadonlySet<string>; rows: AskedRow[] }[] = [];
  for (const row of asked) {
    const words = row.words.match(/[\p{L}]+/gu) ?? [];
    const language = languageOf(words.map((word) => word.toLowerCase()));
    const ask = { kind: 'question', about: null, words: row.words } as const;
    if (candidatesFor(ask, answers, { scope: {}, language }).length > 0) continue;
    const key = new Set(words.map((word) => word.toLowerCase()).filter((word) => word.length > 3));
    const group = groups.find((entry) => alike(entry.key, key));
    if (group) group.rows.push(row);
    else groups.push({ words: row.words, key, rows: [row] });
  }
  return groups
    .sort((a, b) => b.rows.length - a.rows.length)
    .map(({ words, rows }) => ({
      words,
      times: rows.length,
      from: [...new Set(rows.map((row) => row.companyName ?? row.personName ?? 'somebody'))],
      threadId: rows[0]?.threadId ?? null,
      statement: heldIn(words, said),
    }));
}
const ALIKE = 0.6;
function alike(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  const shared = [...a].filter((word) => b.has(word)).length;
  return shared > 0 && shared / Math.max(a.size, b.size) >= ALIKE;
}
/** The statement of ours that would answer it, if one does. */
function heldIn(words: string, said: readonly Statement[]): string | null {
  const draft = draftReply({
    words,
    reading: NOTHING_READ,
    answers: [],
    statements: said,
    language: null,
    scope: {},
    facts: [],
    fields: [],
    recipient: { name: '', reach: null },
    doNotContact: false,
  });
  const by = draft.taken[0]?.by;
  return by?.kind === 'statement' ? (said.find((entry) => entry.id === by.id)?.says ?? null) : null;
}

/** The last conversations answered with an agreed answer, and what came of them. */
export async function answeredLately(world: World, id: string) {
  found(await findThing(world.db, id), 'this answer');
  return answeredWith(world.db, id, 20);
}
