/** ": did you mean …?" with the closest of the choices, when one is close. */
export function near(word: string, choices: readonly string[]): string {
  const scored = choices.map((choice) => ({ choice, d: distance(word.toLowerCase(), choice.toLowerCase()) })).sort((a, b) => a.d - b.d)[0];
  return scored && scored.d <= Math.max(2, word.length / 3) ? `: did you mean “${scored.choice}”?` : '';
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
