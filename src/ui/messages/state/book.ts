/** The book of answers: its order, and what a new answer begins with. */
import type { AnswerBookView } from '../../../api';

type Item = AnswerBookView['items'][number];

/** Objections first, then topics of questions; of each the one most used first. */
export function byAbout(items: readonly Item[]): readonly { readonly item: Item; readonly isFirst: boolean }[] {
  const sorted = [...items].sort(
    (a, b) =>
      Number(a.retired) - Number(b.retired) ||
      Number(b.isObjection) - Number(a.isObjection) ||
      a.about.localeCompare(b.about) ||
      b.used - a.used ||
      a.name.localeCompare(b.name),
  );
  return sorted.map((item, i) => ({ item, isFirst: sorted[i - 1]?.about !== item.about || sorted[i - 1]?.retired !== item.retired }));
}

const LONGEST_TOPIC = 40;
const clipped = (words: string): string => (words.length <= LONGEST_TOPIC ? words : `${words.slice(0, LONGEST_TOPIC - 1).trimEnd()}…`);

/** What is sent to make an answer: one with a name to be filled, or one that begins with a question that waits. */
export function newAnswer(ask: { readonly name: string } | { readonly question: string; readonly statement: string | null }) {
  const isNamed = 'name' in ask;
  const name = isNamed ? ask.name : clipped(ask.question.replace(/[?¿]/g, '').trim());
  if (isNamed) return { kind: 'answer' as const, name };
  const texts = [{ language: 'en', body: ask.statement ?? 'Thank you for asking. May I come back to you on that?' }];
  return { kind: 'answer' as const, name, body: { name, about: name, asks: [ask.question.slice(0, 200)], when: '', texts, notSay: [] } };
}
