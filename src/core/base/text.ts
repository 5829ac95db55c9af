/** Lower case without accents; ß, ø, æ, ł and đ written out, so that names compare across keyboards. */
export function fold(text: string): string {
  return text
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/ß/g, 'ss')
    .replace(/ø/g, 'o')
    .replace(/æ/g, 'ae')
    .replace(/ł/g, 'l')
    .replace(/đ/g, 'd');
}

/** Folded words of letters and digits. */
export function words(text: string): string[] {
  return fold(text).match(/[\p{L}\p{N}]+/gu) ?? [];
}

/** At most `length` characters, cut at a word, with an ellipsis when something was cut. */
export function clip(text: string, length: number): string {
  if (text.length <= length) return text;
  const cut = text.slice(0, length - 1);
  const space = cut.lastIndexOf(' ');
  return `${cut.slice(0, space > length * 0.6 ? space : cut.length).trimEnd()}…`;
}

/** "1 person", "3 people". */
export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count.toLocaleString('en-GB')} ${count === 1 ? one : many}`;
}

/** The name itself where it is free, else with the first number behind it that makes it free: "Name 2". */
export function freeName(name: string, taken: Iterable<string>): string {
  const known = new Set(taken);
  let free = name;
  for (let n = 2; known.has(free); n++) free = `${name} ${n}`;
  return free;
}

/** A longer line is read in pieces: what looks at a stretch of text from every place in it stays affordable. */
export const LONGEST_PIECE = 2_000;

/** A text cut where words part, or else between letters, into pieces of at most `longest` characters. */
export function pieces(text: string, longest = LONGEST_PIECE): readonly string[] {
  if (text.length <= longest) return [text];
  const out: string[] = [];
  for (let from = 0; from < text.length;) {
    let to = Math.min(text.length, from + longest);
    if (to < text.length) {
      // Only the second half is searched: from the end of every piece back to the beginning would be the square of the length.
      const half = from + Math.floor(longest / 2);
      const space = text.slice(half, to + 1).lastIndexOf(' ');
      if (space > 0) to = half + space;
      // never between the halves of one letter
      else if (/[\ud800-\udbff]/.test(text.charAt(to - 1))) to -= 1;
    }
    out.push(text.slice(from, to).trim());
    from = to;
  }
  return out.filter((piece) => piece !== '');
}
