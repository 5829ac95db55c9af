import type { Topic } from '../../../api';

/** What each page shows, by its address; `*` is the id of the one thing it is about. The first that fits counts. */
const SHOWN: readonly (readonly [path: string, topics: readonly (Topic | `${'flow' | 'record' | 'thread' | 'trip'}:`)[]])[] = [
  ['/', ['desk', 'messages', 'intake']],
  ['/account', ['settings']],
  ['/audit', []],
  ['/duplicates', ['duplicates']],
  ['/first-day', ['settings', 'things', 'intake', 'messages']],
  ['/flows', ['flows', 'trips']],
  ['/flows/from-file', []],
  ['/flows/*', ['flow:']],
  ['/flows/*/release', ['flow:']],
  ['/flows/*/trips', ['flow:']],
  ['/lookups', ['trips', 'things']],
  ['/lookups/chains', ['things']],
  ['/lookups/chains/*', ['things']],
  ['/messages', ['messages']],
  ['/messages/rules', ['messages']],
  ['/messages/statements', ['things']],
  ['/messages/answers', ['things', 'messages']],
  ['/messages/answers/*', ['things']],
  ['/messages/plans', ['things']],
  ['/messages/plans/*', ['things']],
  ['/messages/texts', ['things']],
  ['/messages/texts/*', ['things']],
  ['/messages/*', ['thread:']],
  ['/openings', ['openings']],
  ['/pipeline', ['deals']],
  ['/pipeline/stages', ['things']],
  ['/pipeline/stages/*', ['things']],
  ['/pipeline/*', ['record:']],
  ['/records', ['records']],
  ['/records/people/*', ['record:']],
  ['/records/people/*/dossier', ['dossiers']],
  ['/records/companies/*', ['record:']],
  ['/records/companies/*/dossier', ['dossiers']],
  ['/scorecards', ['things']],
  ['/scorecards/*', ['things']],
  ['/settings', ['settings']],
  ['/settings/connections', ['settings', 'trips']],
  ['/settings/data', ['settings']],
  ['/settings/do-not-contact', ['settings', 'messages']],
  ['/settings/fields', ['settings']],
  ['/settings/limits', ['settings', 'trips']],
  ['/settings/mailboxes', ['settings', 'messages']],
  ['/settings/people', ['settings']],
  ['/settings/questions/*', ['settings']],
  ['/settings/reading', ['settings']],
  ['/settings/sign-in', ['settings']],
  ['/settings/teams', ['settings']],
  ['/settings/tokens', ['settings']],
  ['/sources', ['intake']],
  ['/sources/directory', ['intake']],
  ['/sources/set-aside', ['intake']],
  ['/sources/forms/*', ['intake']],
  ['/sources/watched/new', []],
  ['/sources/watched/*', ['intake']],
  ['/sources/webhooks/*', ['intake']],
  ['/sources/*', ['intake']],
  ['/trips/*', ['trip:']],
];

/** The topics of the page at an address; undefined where no page is known. */
export function shownAt(path: string): readonly Topic[] | undefined {
  const parts = path.split('/');
  for (const [pattern, topics] of SHOWN) {
    const pieces = pattern.split('/');
    if (pieces.length !== parts.length || !pieces.every((piece, i) => piece === '*' || piece === parts[i])) continue;
    const id = parts[pieces.indexOf('*')] ?? '';
    return topics.map((topic) => (topic.endsWith(':') ? (`${topic}${id}` as Topic) : topic));
  }
  return undefined;
}
