/** Names on the way down a flow. A branch sees all that stands above it without a copy, and keeps its own to itself. */
export class Layers<T> {
  private readonly own = new Map<string, T>();

  constructor(private readonly above?: Layers<T>) {}

  has(name: string): boolean {
    return this.own.has(name) || (this.above?.has(name) ?? false);
  }
  get(name: string): T | undefined {
    return this.own.get(name) ?? this.above?.get(name);
  }
  set(name: string, value: T): void {
    this.own.set(name, value);
  }
  get empty(): boolean {
    return this.own.size === 0 && (this.above?.empty ?? true);
  }
  *keys(): Generator<string> {
    if (this.above) yield* this.above.keys();
    yield* this.own.keys();
  }

  /** What every one of the branches has found out is known here too. */
  join(branches: readonly Layers<T>[]): void {
    const [first, ...others] = branches;
    for (const [name, value] of first?.own ?? []) if (others.every((branch) => branch.own.has(name))) this.own.set(name, value);
  }
}
