/** 0x80 to 0x9f of Windows-1252 (WHATWG Encoding Standard); five of them stay control characters. */
const UPPER = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009dž\u0178';

/**
 * A decoder of texts by the label of their charset. The runtime reads Windows-1252 (and ISO-8859-1, which means the same) as if
 * its euro sign, its dashes and its quotation marks were control characters: they are put right.
 */
export function decoderOf(label: string, options: { readonly fatal?: boolean } = {}): Pick<TextDecoder, 'decode' | 'encoding'> {
  const decoder = new TextDecoder(label, options);
  if (decoder.encoding !== 'windows-1252') return decoder;
  return {
    encoding: decoder.encoding,
    decode: (bytes, how) => decoder.decode(bytes, how).replace(/[\u0080-\u009f]/g, (letter) => UPPER.charAt(letter.charCodeAt(0) - 0x80)),
  };
}
