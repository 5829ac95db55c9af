import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/min';
import { fold } from '../../../core/base';
import { languageOf } from '../../../core/reader';

/** “0113 496 0155” in Leeds as +441134960155, without asking whether the number is given out. */
export function e164(phone: string | null, country: string | null): string | null {
  if (phone === null) return null;
  return parsePhoneNumberFromString(phone, (country ?? undefined) as CountryCode | undefined)?.number ?? phone.replace(/[^\d+]/g, '');
}

const USUAL: Readonly<Record<string, string>> = { en: 'GB', de: 'DE', nl: 'NL', fr: 'FR', es: 'ES' };
/** Where a number without a country's is from, by the language of the paper: a workspace would take its own. */
export const usualCountry = (text: string): string | null =>
  /\(\d{3}\) ?\d{3}[ -]\d{4}/.test(text) ? 'US' : (USUAL[languageOf(fold(text).split(/[^\p{L}]+/u))] ?? null);
