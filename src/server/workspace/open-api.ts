/** An OpenAPI document as somebody gives it: JSON or YAML, read as the beginning of descriptions. Nothing is fetched. */
import { parse } from 'yaml';
import type { ProviderBeginnings } from '../../api';
import { readOpenApi } from '../../core/lookup';
import { Refusal } from '../platform/world';

/** Marks in YAML that may repeat what stands elsewhere: more of them are a trap, not a document. */
const MOST_ALIASES = 50;

export function beginningsOf(document: string): ProviderBeginnings {
  const read = readOpenApi(parsed(document));
  if (!read.ok) throw new Refusal('not valid', read.why);
  const { title, calls } = read;
  return {
    title,
    calls: calls.map(({ provider, example, says, ...call }) => ({
      ...call,
      provider: { ...provider, headers: [...provider.headers] },
      example: JSON.stringify(example ?? null, null, 1),
      says: [...says],
    })),
  };
}

function parsed(document: string): unknown {
  try {
    return document.trimStart().startsWith('{')
      ? JSON.parse(document)
      : parse(document, { maxAliasCount: MOST_ALIASES, logLevel: 'error' });
  } catch (error) {
    throw new Refusal('not valid', `it is neither JSON nor YAML: ${error instanceof Error ? (error.message.split('\n')[0] ?? '') : ''}`);
  }
}
