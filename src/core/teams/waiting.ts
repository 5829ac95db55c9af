/** What came onto somebody's desk since they were last told. */
export interface Fresh {
  readonly reviews: number;
  readonly replies: number;
  readonly tasks: number;
  readonly notices: number;
}
const WORDS: Readonly<Record<keyof Fresh, readonly [one: string, many: string]>> = {
  replies: ['answer', 'answers'],
  reviews: ['message to approve', 'messages to approve'],
  tasks: ['call or note to do', 'calls or notes to do'],
  notices: ['word from a flow', 'words from flows'],
};

/** “2 answers and 1 message to approve are waiting for you”; undefined where nothing is new. */
export function sayWaiting(fresh: Fresh): string | undefined {
  const kinds = (Object.keys(WORDS) as (keyof Fresh)[]).filter((kind) => fresh[kind] > 0);
  const parts = kinds.map((kind) => `${fresh[kind]} ${WORDS[kind][fresh[kind] === 1 ? 0 : 1]}`);
  const all = kinds.reduce((sum, kind) => sum + fresh[kind], 0);
  if (all === 0) return undefined;
  const listed = parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1) ?? ''}`;
  return `${listed} ${all === 1 ? 'is' : 'are'} waiting for you`;
}
