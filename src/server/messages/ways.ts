import type { FeelScope } from '../../core/feel';

/** The ways to a person, as the do-not-contact list names them: addresses, and numbers as `tel:+441632960417`. */
export const telName = (phone: string): string => `tel:${phone.replace(/[^\d+]/g, '')}`;

const filled = (value: unknown): value is string => typeof value === 'string' && value.trim() !== '';

interface Reached {
  readonly email?: unknown;
  readonly otherEmail?: unknown;
  readonly phone?: unknown;
  readonly mobile?: unknown;
}
/** Of a person's row, or of a record as conditions see it. */
export function waysTo(given: Reached | FeelScope): readonly string[] {
  const person: Reached & { readonly other_email?: unknown } = given;
  const mails = [person.email, person.otherEmail, person.other_email].filter(filled).map((email) => email.toLowerCase());
  return [...new Set([...mails, ...[person.phone, person.mobile].filter(filled).map(telName)])];
}
