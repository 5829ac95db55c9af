import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/min';
import { fold } from '../base';

const TITLES = /\b(?:dr|prof|ir|ing|drs|mr|mrs|ms|miss|herr|frau|dhr|mevr|mw|sr|sra|don|dona|dipl|mgr|inz)\b\.?/g;
const LEGAL =
  /\b(?:ltd|limited|llp|plc|inc|co|company|gmbh|ag|kg|ug|ohg|e ?k|bv|b v|nv|n v|vof|v o f|cv|sl|s l|sa|s a|slu|sp z o o|sp zoo|zoo|srl|s r l|spa|sas|sarl|aps|ab|oy)\b/g;

/** Folded, titles off, "family, given" turned round, words in their order. */
export function personName(name: string): string {
  const [family, given] = name.split(',');
  const straight = given === undefined ? name : `${given} ${family ?? ''}`;
  return fold(straight)
    .replace(/[’']/g, '')
    .replace(/[.]/g, '. ')
    .replace(TITLES, ' ')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
}

/** Folded, legal forms and "and/und/&" off. */
export function companyName(name: string): string {
  const plain = fold(name)
    .replace(/&/g, ' ')
    .replace(/\b(?:and|und|en|y|e|et|i)\b/g, ' ')
    .replace(/[^\p{L}\p{N}]+/gu, ' ');
  return plain.replace(LEGAL, ' ').replace(/\s+/g, ' ').trim() || plain.trim();
}

/** Host of a site without `www.`, or null. */
export function companySite(site: string | null | undefined): string | null {
  const host =
    site
      ?.replace(/^https?:\/\//i, '')
      .replace(/^www\./i, '')
      .split(/[/?#]/)[0]
      ?.toLowerCase() ?? '';
  return host.includes('.') ? host : null;
}

/** E.164, read as a number of `country` (ISO 3166) where it has no prefix; null when it cannot be one. */
export function normalisePhone(raw: string | null | undefined, country: string | null | undefined): string | null {
  if (!raw) return null;
  const text = raw.replace(/\(0\)/, '').replace(/^\s*00/, '+');
  const parsed = parsePhoneNumberFromString(text, isCountry(country) ? country : undefined);
  return parsed?.isPossible() ? parsed.number : null;
}

function isCountry(code: string | null | undefined): code is CountryCode {
  return code !== null && code !== undefined && /^[A-Z]{2}$/.test(code);
}
