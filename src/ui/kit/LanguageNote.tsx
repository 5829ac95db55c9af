import { languageName } from './languages';
import { Tag } from './parts';

/** The language of a message where it is not ours, or that it is not the reader's. */
export function LanguageNote({ language, fallback }: { readonly language: string | null; readonly fallback: string | null }) {
  if (fallback !== null) return <Tag tone="brass">{fallback}</Tag>;
  return language === null || language === 'en' ? null : <span className="quiet small">in {languageName(language)}</span>;
}
