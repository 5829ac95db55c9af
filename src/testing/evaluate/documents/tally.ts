/** Counts of what was right, wrong, missed and made up, by field; `faults` names each that is not right. */
export class Tally {
  private readonly rows = new Map<string, { given: number; right: number; wrong: number; missed: number; invented: number }>();
  readonly faults: string[] = [];

  /** `expected` null: there is nothing to be found, and finding something is inventing it. */
  field<T>(field: string, where: string, expected: T | null, is: T | null, same: (a: T, b: T) => boolean): void {
    const row = this.rows.get(field) ?? { given: 0, right: 0, wrong: 0, missed: 0, invented: 0 };
    this.rows.set(field, row);
    if (expected !== null) row.given += 1;
    if (expected === null && is === null) return;
    if (expected === null) row.invented += 1;
    else if (is === null) row.missed += 1;
    else if (same(expected, is)) row.right += 1;
    else row.wrong += 1;
    if (expected === null || is === null || !same(expected, is))
      this.faults.push(
        `${expected === null ? 'made up' : is === null ? 'missed ' : 'wrong  '} ${field.padEnd(15)} ${where}: ${JSON.stringify(expected)} expected, ${JSON.stringify(is)} given`,
      );
  }

  /** A table, and under it the sums: right of what was answered, and of what stands there found. */
  lines(title: string): readonly string[] {
    const head = `\n${title.padEnd(22)}${['there', 'right', 'wrong', 'missed', 'made up'].map((word) => word.padStart(9)).join('')}`;
    const all = { given: 0, right: 0, wrong: 0, missed: 0, invented: 0 };
    const body = [...this.rows].map(([name, row]) => {
      for (const key of Object.keys(all) as (keyof typeof all)[]) all[key] += row[key];
      return name.padEnd(22) + [row.given, row.right, row.wrong, row.missed, row.invented].map((cell) => String(cell).padStart(9)).join('');
    });
    const answered = all.right + all.wrong + all.invented;
    const share = (part: number, of: number): string => `${((part / Math.max(1, of)) * 100).toFixed(1)} %`;
    return [
      head,
      ...body,
      `right of answered ${share(all.right, answered)} (${all.right} of ${answered}), right of what is there ${share(all.right, all.given)} (${all.right} of ${all.given}), made up ${all.invented}`,
    ];
  }
}

export const plainText = (text: string): string => text.replace(/\s+/g, ' ').trim().toLowerCase();
export const sameText = (a: unknown, b: unknown): boolean => plainText(String(a)) === plainText(String(b));
