import { fold } from '../base';
import { COUNTRIES, countryOf } from '../fields';

export type PlaceReading =
  { readonly ok: true; readonly country: string; readonly zone: string } | { readonly ok: false; readonly why: string };

/** The time zones of a country (ISO 3166), the one most people live in first, as the platform's own data has them. */
export function zonesOf(country: string): readonly string[] {
  const locale = new Intl.Locale(`und-${country}`) as Intl.Locale & {
    readonly timeZones?: readonly string[];
    getTimeZones?: () => readonly string[];
  };
  return locale.getTimeZones?.() ?? locale.timeZones ?? [];
}

const cityOf = (zone: string): string => fold((zone.split('/').at(-1) ?? '').replace(/_/g, ' '));

/** The country and the clock of a place: a country by its name, or a large town that a clock is called by. */
export function readPlace(text: string): PlaceReading {
  const parts = text
    .split(',')
    .map((part) => part.trim())
    .filter((part) => part !== '');
  const named = parts.map((part) => countryOf(part)).find((country) => country !== undefined);
  const towns = parts.map((part) => fold(part));
  for (const country of named === undefined ? COUNTRIES : [named]) {
    const zone = zonesOf(country).find((entry) => towns.includes(cityOf(entry)));
    if (zone !== undefined) return { ok: true, country, zone };
  }
  const [first] = named === undefined ? [] : zonesOf(named);
  if (named !== undefined && first !== undefined) return { ok: true, country: named, zone: first };
  return {
    ok: false,
    why: text.trim() === '' ? 'a country, or a town and its country' : `where is ${text.trim()}? say the country with it`,
  };
}
