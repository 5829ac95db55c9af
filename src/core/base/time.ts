/** Milliseconds since 1970-01-01T00:00Z. Instants are UTC; a zone is passed wherever a local hour matters. */
export type Instant = number;

export const DURATION_UNITS = ['minute', 'hour', 'day', 'working day', 'week'] as const;
export type DurationUnit = (typeof DURATION_UNITS)[number];

export interface Duration {
  readonly amount: number;
  readonly unit: DurationUnit;
}

const UNIT_MS: Record<Exclude<DurationUnit, 'working day'>, number> = {
  minute: 60_000,
  hour: 3_600_000,
  day: 86_400_000,
  week: 7 * 86_400_000,
};

/** Working days need a calendar; everything else is a fixed number of milliseconds. */
export function isWorkingUnit(duration: Duration): boolean {
  return duration.unit === 'working day';
}

/** Length in milliseconds. A working day counts as a day: callers that know a calendar use it instead. */
export function durationMs(duration: Duration): number {
  const unit = duration.unit === 'working day' ? 'day' : duration.unit;
  return duration.amount * UNIT_MS[unit];
}

export function printDuration(duration: Duration): string {
  return `${duration.amount} ${duration.unit}${duration.amount === 1 ? '' : 's'}`;
}
