import { Tag } from './parts';

/** Languages that texts and answers are written in, as they are called here. */
export const LANGUAGES: readonly (readonly [code: string, name: string])[] = [
  ['en', 'English'],
  ['de', 'German'],
  ['nl', 'Dutch'],
  ['fr', 'French'],
  ['es', 'Spanish'],
  ['it', 'Italian'],
  ['pt', 'Portuguese'],
  ['pl', 'Polish'],
  ['da', 'Danish'],
  ['sv', 'Swedish'],
];
export const languageName = (code: string): string => LANGUAGES.find(([each]) => each === code)?.[1] ?? code;

/** The language of a message where it is not ours, or that it is not the reader's. */
export function LanguageNote({ language, fallback }: { readonly language: string | null; readonly fallback: string | null }) {
  if (fallback !== null) return <Tag tone="brass">{fallback}</Tag>;
  return language === null || language === 'en' ? null : <span className="quiet small">in {languageName(language)}</span>;
}
