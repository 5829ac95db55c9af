import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

export async function isDoNotContact(tx: Tx, email: string | null): Promise<boolean> {
  return email !== null && (await doNotContactAmong(tx, [email])).size > 0;
}

/** What an address is barred by: itself, `@` its domain, and that of the domains above it. */
function barredBy(email: string): readonly string[] {
  const parts = email.slice(email.lastIndexOf('@') + 1).split('.');
  return [email, ...parts.slice(0, -1).map((_, i) => `@${parts.slice(i).join('.')}`)];
}

/** The same in a statement, of the person `p`: by an address of theirs, its domain or one above it, or a number. */
export const isBarred = (tx: Tx): ReturnType<Tx> => tx`
  (exists (select 1 from unnest(array[lower(p.email), lower(p.other_email)]) way
      cross join lateral string_to_array(split_part(way, '@', 2), '.') parts
      cross join lateral generate_series(1, cardinality(parts) - 1) i
      join do_not_contact d on d.email in (way, '@' || array_to_string(parts[i:], '.')))
    or exists (select 1 from do_not_contact d where d.email in (
      'tel:' || regexp_replace(p.phone, '[^0-9+]', '', 'g'), 'tel:' || regexp_replace(p.mobile, '[^0-9+]', '', 'g'))))`;

/** Of some addresses, those nobody may write to. */
export async function doNotContactAmong(tx: Tx, emails: readonly string[]): Promise<ReadonlySet<string>> {
  const names = new Map(emails.map((email) => [email, barredBy(email)] as const));
  const all = [...new Set([...names.values()].flat())];
  const barred = new Set(
    (await tx<{ email: string }[]>`select email from do_not_contact where email = any(${all})`).map((row) => row.email),
  );
  return new Set(emails.filter((email) => names.get(email)?.some((name) => barred.has(name)) === true));
}

export async function addDoNotContact(tx: Tx, email: string, why: string, now: Instant): Promise<void> {
  await tx`insert into do_not_contact (email, why, at) values (${email}, ${why}, ${now}) on conflict (email) do nothing`;
}

/** Why an address is not written to; undefined when it may be. */
export async function whyDoNotContact(tx: Tx, email: string): Promise<string | undefined> {
  return (await tx<{ why: string }[]>`select why from do_not_contact where email = ${email}`)[0]?.why;
}

export async function liftDoNotContact(tx: Tx, email: string): Promise<void> {
  await tx`delete from do_not_contact where email = ${email}`;
}

export async function listDoNotContact(
  tx: Tx,
  limit = 500,
): Promise<{ readonly email: string; readonly why: string; readonly at: Instant }[]> {
  return [
    ...(await tx<
      { email: string; why: string; at: Instant }[]
    >`select email, why, at from do_not_contact order by at desc, email limit ${limit}`),
  ];
}
