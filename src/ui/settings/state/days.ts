/** `Fri 25 Dec 2026` for `2026-12-25`; empty for what is no day. */
export function longDay(day: string): string {
  const at = /^\d{4}-\d{2}-\d{2}$/.test(day) ? new Date(`${day}T12:00:00Z`) : undefined;
  if (!at || Number.isNaN(at.getTime()) || at.toISOString().slice(0, 10) !== day) return '';
  const part = (options: Intl.DateTimeFormatOptions): string =>
    new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', ...options }).format(at);
  return `${part({ weekday: 'short' })} ${part({ day: 'numeric' })} ${part({ month: 'short' })} ${part({ year: 'numeric' })}`;
}

/** `3–7 Dec 2026, 20 Dec 2026` written as people do becomes spans of days; undefined where a part is none. One part: a day, or two with “to”. */
export function readSpans(text: string): readonly { readonly from: string; readonly to: string }[] | undefined {
  const parts = text
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  const spans = parts.map((part) => {
    const [from = '', to = from] = part.split(/ (?:to|until|–) /).map((end) => end.trim());
    return longDay(from) === '' || longDay(to) === '' || to < from ? undefined : { from, to };
  });
  return spans.every((span) => span !== undefined) ? spans : undefined;
}
export const writeSpans = (spans: readonly { readonly from: string; readonly to: string }[]): string =>
  spans.map(({ from, to }) => (from === to ? from : `${from} to ${to}`)).join(', ');
