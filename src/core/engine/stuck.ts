/** Trips stuck at the same line of the same flow for the same reason are one decision: they share this key. */
export function stuckKey(trip: { readonly flowId: string; readonly mark: string | null; readonly why: string }): string {
  return `${trip.flowId} ${trip.mark ?? ''} ${trip.why}`;
}
