/** Money in millionths of a euro, with two decimals; a free thing says so plainly as 0.00 €. */
export function euro(micro: number): string {
  return `${(micro / 1_000_000).toFixed(2)} €`;
}

export function tookText(ms: number): string {
  return ms < 1000 ? `${Math.round(ms)} ms` : ms < 60_000 ? `${(ms / 1000).toFixed(1)} s` : `${Math.round(ms / 60_000)} min`;
}

/** How long ago, in the largest whole unit. */
export function ago(at: number, now: number): string {
  const minutes = Math.max(0, Math.round((now - at) / 60_000));
  if (minutes < 1) return 'now';
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 48 * 60) return `${Math.round(minutes / 60)} h`;
  const days = Math.round(minutes / 1440);
  return days < 60 ? `${days} d` : days < 730 ? `${Math.round(days / 30)} mo` : `${Math.round(days / 365)} y`;
}

/** “just now”, “3 h ago”. */
export function agoText(at: number, now: number): string {
  const since = ago(at, now);
  return since === 'now' ? 'just now' : `${since} ago`;
}

const part = (at: number, zone: string, options: Intl.DateTimeFormatOptions): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...options }).format(at);
export const clockText = (at: number, zone: string): string => part(at, zone, { hour: '2-digit', minute: '2-digit' });
export const dayText = (at: number, zone: string): string =>
  part(at, zone, { weekday: 'short', day: 'numeric', month: 'short' }).replace(',', '');
/** A day that may be of another year: 5 Mar 2027. */
export const dateText = (at: number, zone: string): string => part(at, zone, { day: 'numeric', month: 'short', year: 'numeric' });
export const dayTimeText = (at: number, zone: string): string => `${dayText(at, zone)} ${clockText(at, zone)}`;
/** The day and minute where somebody is, as ISO 8601 without a zone. */
export const localText = (at: number, zone: string): string =>
  new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' }).format(at).replace(' ', 'T');
export const sameDay = (a: number, b: number, zone: string): boolean =>
  part(a, zone, { dateStyle: 'short' }) === part(b, zone, { dateStyle: 'short' });

/** A journal detail as words: text, numbers and yes/no as they are; anything with parts, or nothing, as ''. */
export const scalarText = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? String(value) : '';

/** The town of a zone, as people say it: `Europe/Madrid` is Madrid. */
export const zoneText = (zone: string): string => zone.split('/').at(-1)?.replace(/_/g, ' ') ?? zone;

/** The address of a page as it is read: without scheme, without a slash at the end. */
export const pageText = (url: string): string => url.replace(/^https?:\/\//, '').replace(/\/$/, '');

/** A count with its thousands apart. */
export const countText = (count: number): string => count.toLocaleString('en-GB');
/** A size in bytes as people read it. */
export const kb = (size: number): string => (size < 1024 ? `${size} B` : `${Math.round(size / 1024).toLocaleString('en-GB')} kB`);
