/** Short forms after which a point does not end a sentence. */
const SHORT = /(?:^|\s)(?:dr|ir|ing|dhr|mw|mr|mrs|ms|st|nr|no|ca|approx|bzw|z\.b|u\.a|i\.e|e\.g|tel|b\.v|n\.v|s\.l|ltd|inc|co|gmbh)\.$/i;

/** Cuts a block of text into sentences; points in numbers and after short forms do not cut. */
export function sentencesOf(text: string): string[] {
  const out: string[] = [];
  for (const block of text.split(/\n+/)) {
    let current = '';
    for (const piece of block
      .replace(/\s+/g, ' ')
      .trim()
      .split(/(?<=[.!?…])\s+(?=[\p{Lu}\d“"¿¡])/u)) {
      current = current === '' ? piece : `${current} ${piece}`;
      if (SHORT.test(current)) continue;
      out.push(current);
      current = '';
    }
    if (current !== '') out.push(current);
  }
  return out.filter((sentence) => sentence.trim() !== '');
}
