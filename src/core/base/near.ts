/** ": did you mean …?" with the closest of the choices, when one is close. */
export function near(word: string, choices: readonly string[]): string {
  const most = Math.max(2, word.length / 3);
  const wanted = word.toLowerCase();
  let closest: string | undefined;
  let least = Number.POSITIVE_INFINITY;
  for (const choice of choices) {
    // A name that is longer or shorter by more than that cannot be close: most are passed over unread.
    if (Math.abs(choice.length - word.length) > most) continue;
    const d = distance(wanted, choice.toLowerCase());
    if (d < least && d <= most) [closest, least] = [choice, d];
  }
  return closest === undefined ? '' : `: did you mean “${closest}”?`;
}

function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next[j] = Math.min((row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1, (row[j - 1] ?? 0) + (a[i - 1] === b[j - 1] ? 0 : 1));
    row = next;
  }
  return row[b.length] ?? 0;
}
