export interface SendDay {
  readonly day: string;
  readonly sends: { readonly low: number; readonly mid: number; readonly high: number };
}

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
export const shortDay = (day: string): string => DAY.format(Date.parse(day));
