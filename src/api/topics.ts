/**
 * What a change is about. An open page names what it shows; who changes something names what it changed, and only the pages
 * that show it ask again. A topic with an id (`flow:ID`) is one thing; without, it is the list of all of its kind. `record:*`
 * says that more things of a kind have changed than are worth naming.
 */
export const TOPIC_LISTS = [
  /** how many there are of something */
  'counts',
  'desk',
  'messages',
  'flows',
  'trips',
  'records',
  'duplicates',
  'deals',
  'openings',
  'intake',
  'things',
  'dossiers',
  'settings',
] as const;
export const TOPIC_KINDS = ['flow', 'trip', 'record', 'thread'] as const;

export type TopicKind = (typeof TOPIC_KINDS)[number];
/** `everything` is said when nobody knows what was missed: after a lost line, or when the demo's clock went on. */
export type Topic = (typeof TOPIC_LISTS)[number] | `${TopicKind}:${string}` | 'everything';

const lists: ReadonlySet<string> = new Set(TOPIC_LISTS);
const kinds: ReadonlySet<string> = new Set(TOPIC_KINDS);

export const isTopic = (value: unknown): value is Topic =>
  typeof value === 'string' && (value === 'everything' || lists.has(value) || kinds.has(value.slice(0, Math.max(0, value.indexOf(':')))));

/** Whether who shows `shown` is to ask again after `told`. */
export const concerns = (told: readonly Topic[], shown: readonly Topic[]): boolean =>
  told.some((topic) => {
    if (topic === 'everything') return true;
    if (!topic.endsWith(':*')) return shown.includes(topic);
    const kind = topic.slice(0, -1);
    return shown.some((one) => one.startsWith(kind));
  });

/**
 * So many single things of a kind are named; more of them are said as `kind:*`. A word of PostgreSQL holds 8,000 bytes: this many
 * of every kind, each with a whole id, stay well below.
 */
const NAMED_AT_MOST = 30;

/** Topics as they are told: each once, and many of a kind as one. */
export function told(topics: Iterable<Topic>): readonly Topic[] {
  const each = [...new Set(topics)];
  if (each.includes('everything')) return ['everything'];
  return TOPIC_KINDS.reduce<readonly Topic[]>((out, kind) => {
    const isOfKind = (topic: Topic): boolean => topic.startsWith(`${kind}:`);
    const named = out.filter(isOfKind);
    const whole: Topic = `${kind}:*`;
    if (named.length <= NAMED_AT_MOST && !named.includes(whole)) return out;
    return [...out.filter((topic) => !isOfKind(topic)), whole];
  }, each);
}
