/**
 * Counts how many characters are looked at while something is read: what every search in a text passes over, from where it
 * begins to where it ends. A count and not a time, so that a busy machine changes nothing. What happens inside one search is
 * not seen here: that is the linter's part, which refuses expressions that look at a stretch again and again.
 */
/* eslint-disable @typescript-eslint/unbound-method -- methods are taken off and put back as they were */
const STRING = String.prototype;
const PATTERN = RegExp.prototype;

export function countWork(work: () => unknown): number {
  let sum = 0;
  const { exec } = PATTERN;
  const { indexOf, lastIndexOf, includes, trim, toLowerCase, normalize } = STRING;
  PATTERN.exec = function counted(this: RegExp, text: string): RegExpExecArray | null {
    const from = this.global || this.sticky ? this.lastIndex : 0;
    const found = exec.call(this, text);
    const whole = text.length;
    sum += found ? found.index + found[0].length - from + 1 : this.sticky ? 1 : Math.max(0, whole - from) + 1;
    return found;
  };
  STRING.indexOf = function counted(this: string, mark: string, from = 0): number {
    const at = indexOf.call(this, mark, from);
    sum += (at < 0 ? this.length : at) - from + 1;
    return at;
  };
  STRING.lastIndexOf = function counted(this: string, mark: string, from?: number): number {
    const at = from === undefined ? lastIndexOf.call(this, mark) : lastIndexOf.call(this, mark, from);
    sum += Math.min(from ?? this.length, this.length) - Math.max(0, at) + 1;
    return at;
  };
  STRING.includes = function counted(this: string, mark: string, from?: number): boolean {
    sum += this.length + 1;
    return includes.call(this, mark, from);
  };
  STRING.trim = function counted(this: string): string {
    sum += 1;
    return trim.call(this);
  };
  STRING.toLowerCase = function counted(this: string): string {
    sum += this.length;
    return toLowerCase.call(this);
  };
  STRING.normalize = function counted(this: string, form?: string): string {
    sum += this.length;
    return normalize.call(this, form);
  };
  try {
    work();
    return sum;
  } finally {
    PATTERN.exec = exec;
    Object.assign(STRING, { indexOf, lastIndexOf, includes, trim, toLowerCase, normalize });
  }
}
