export interface NotIn {
  readonly says: string;
  /** all else is right: the code of a phone is wanted too */
  readonly wantsCode: boolean;
}
/** Goes in by a door; says why not, or nothing when the page is left for the desk. */
export async function enterBy(door: string, body: object): Promise<NotIn | undefined> {
  const response = await fetch(door, { method: 'POST', body: JSON.stringify(body) }).catch(() => undefined);
  if (response?.ok) {
    window.location.href = '/';
    return undefined;
  }
  const answer = (await response?.json().catch(() => ({}))) as { detail?: string; wants?: string } | undefined;
  return { says: answer?.detail ?? 'Millrace could not be reached: try again in a moment.', wantsCode: answer?.wants === 'code' };
}
