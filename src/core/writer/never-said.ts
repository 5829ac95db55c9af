import { fold } from '../base';

const plain = (text: string): string =>
  ` ${fold(text)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `;

/** The first of the phrases that a text says, whatever their case and accents, as whole words; undefined when it says none. */
export function neverSaidIn(text: string, phrases: readonly string[]): string | undefined {
  const said = plain(text);
  return phrases.find((phrase) => plain(phrase).trim() !== '' && said.includes(plain(phrase)));
}
