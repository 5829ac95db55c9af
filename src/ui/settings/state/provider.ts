/** A lookup service as it is described. */
import type { ProviderTrial } from '../../../api';
import { placesIn, providerProblems, type Provider } from '../../../core/lookup';
import { linesIn } from '../../kit/lines';

export const NEW_PROVIDER: Provider = {
  name: '',
  method: 'GET',
  url: 'https://',
  headers: [{ name: 'Authorization', value: 'Bearer {secret}' }],
  body: '',
  value: '',
  confidence: '',
};

type Problem = ReturnType<typeof providerProblems>[number];
/** What keeps a description from being kept; a name is needed too. */
export const problemsIn = (provider: Provider): readonly Problem[] => [
  ...(provider.name.trim() === '' ? [{ at: 'name' as const, says: 'a connection has a name, by which chains ask it' }] : []),
  ...providerProblems(provider),
];
/** To be tried, it needs no place of the value yet: that is chosen in what comes back. */
export const mayTry = (provider: Provider): boolean => problemsIn(provider).every(({ at }) => at === 'value');

/** Places of an answer that is shown: of a trial, or of an example that was put in by hand. */
export function placesOf(example: string, trial: ProviderTrial | null): ProviderTrial['places'] {
  if (trial && trial.places.length > 0) return trial.places;
  try {
    return [...placesIn(JSON.parse(example))];
  } catch {
    return [];
  }
}

/** Headers as lines, `Name: value`. */
export const headersText = (headers: Provider['headers']): string => headers.map(({ name, value }) => `${name}: ${value}`).join('\n');
export const headersIn = (text: string): Provider['headers'] =>
  linesIn(text).map((line) => {
    const at = line.indexOf(':');
    return at < 0 ? { name: line, value: '' } : { name: line.slice(0, at).trim(), value: line.slice(at + 1).trim() };
  });
