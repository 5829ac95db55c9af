import { pieces } from '../base';

/** Short forms after which a point does not end a sentence. */
const SHORT = /(?:^|\s)(?:dr|ir|ing|dhr|mw|mr|mrs|ms|st|nr|no|ca|approx|bzw|z\.b|u\.a|i\.e|e\.g|tel|b\.v|n\.v|s\.l|ltd|inc|co|gmbh)\.$/i;

/** “am 15. Februar”: the point behind the day of a month. */
const DAY_OF_MONTH = /(?:^|[\s(])[0-3]?\d\.$/;
const MONTH = /^(?:jan|jän|feb|mär|apr|mai|jun|jul|aug|sep|okt|nov|dez)\p{Ll}*\b/iu;

/** So much of the end of a sentence tells whether it has ended. */
const END = 20;

/** Cuts a block of text into sentences; points in numbers and after short forms do not cut. */
export function sentencesOf(text: string): string[] {
  const out: string[] = [];
  for (const block of text.split(/\n+/).flatMap((line) => pieces(line.replace(/\s+/g, ' ').trim()))) {
    let current = '';
    const parts = block.split(/(?<=[.!?…])\s+(?=[\p{Lu}\d“"¿¡])/u);
    for (const [i, piece] of parts.entries()) {
      current = current === '' ? piece : `${current} ${piece}`;
      const end = current.slice(-END);
      if (SHORT.test(end) || (DAY_OF_MONTH.test(end) && MONTH.test(parts[i + 1] ?? ''))) continue;
      out.push(current);
      current = '';
    }
    if (current !== '') out.push(current);
  }
  return out.filter((sentence) => sentence.trim() !== '');
}
