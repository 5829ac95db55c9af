/** Short forms after which a point does not end a sentence. */
const SHORT = /(?:^|\s)(?:dr|ir|ing|dhr|mw|mr|mrs|ms|st|nr|no|ca|approx|bzw|z\.b|u\.a|i\.e|e\.g|tel|b\.v|n\.v|s\.l|ltd|inc|co|gmbh)\.$/i;

/** “am 15. Februar”: the point behind the day of a month. */
const DAY_OF_MONTH = /(?:^|[\s(])[0-3]?\d\.$/;
const MONTH = /^(?:jan|jän|feb|mär|apr|mai|jun|jul|aug|sep|okt|nov|dez)\p{Ll}*\b/iu;

/** Cuts a block of text into sentences; points in numbers and after short forms do not cut. */
export function sentencesOf(text: string): string[] {
  const out: string[] = [];
  for (const block of text.split(/\n+/)) {
    let current = '';
    const pieces = block
      .replace(/\s+/g, ' ')
      .trim()
      .split(/(?<=[.!?…])\s+(?=[\p{Lu}\d“"¿¡])/u);
    for (const [i, piece] of pieces.entries()) {
      current = current === '' ? piece : `${current} ${piece}`;
      if (SHORT.test(current) || (DAY_OF_MONTH.test(current) && MONTH.test(pieces[i + 1] ?? ''))) continue;
      out.push(current);
      current = '';
    }
    if (current !== '') out.push(current);
  }
  return out.filter((sentence) => sentence.trim() !== '');
}
