/** Sentences and conditions that a workspace has written: FEEL over the values of a record. */
import { compileFeel, parseFeel, type FeelScope, type FeelValue } from '../feel';

function worth(text: string, scope: FeelScope): FeelValue {
  const { expr } = parseFeel(text);
  return expr ? compileFeel(expr)(scope) : null;
}

/** Whether a condition holds; one that cannot be read, or asks for what is not known, does not. */
export const holds = (when: string, scope: FeelScope): boolean => worth(when, scope) === true;

/** The sentence with its slots filled, or undefined when one of them is not known: half a sentence is worse than none. */
export function filled(says: string, scope: FeelScope): string | undefined {
  let known = true;
  const text = says.replace(/\{([^{}]{1,200})\}/g, (_, inner: string) => {
    const value = worth(inner, scope);
    if (typeof value === 'string') return value;
    if (typeof value === 'boolean') return value ? 'yes' : 'no';
    if (typeof value === 'number') return String(value);
    known = false;
    return '';
  });
  return known ? text : undefined;
}
