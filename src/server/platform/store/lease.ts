/** Work that one worker holds for a while. Whoever takes it anew moves the fence on; what was held before can no longer be written. */
export interface Lease {
  readonly id: string;
  readonly fence: number;
}

/** The lease ran out and somebody else has the work: nothing more of ours may be written. */
export class LeaseLost extends Error {
  constructor(what: string) {
    super(`the lease of ${what} is lost`);
    this.name = 'LeaseLost';
  }
}

/** Refuses to go on (and rolls back the transaction it stands in) when the row was not ours any more. */
export function assertHeld(rows: { readonly count: number }, what: string): void {
  if (rows.count === 0) throw new LeaseLost(what);
}
