/** One IANA zone per ISO 3166 country: where a country has several, the one most of its people live in. */
const ZONES: Readonly<Record<string, string>> = {
  AT: 'Europe/Vienna',
  BE: 'Europe/Brussels',
  CH: 'Europe/Zurich',
  CZ: 'Europe/Prague',
  DE: 'Europe/Berlin',
  DK: 'Europe/Copenhagen',
  ES: 'Europe/Madrid',
  FI: 'Europe/Helsinki',
  FR: 'Europe/Paris',
  GB: 'Europe/London',
  IE: 'Europe/Dublin',
  IT: 'Europe/Rome',
  NL: 'Europe/Amsterdam',
  NO: 'Europe/Oslo',
  PL: 'Europe/Warsaw',
  PT: 'Europe/Lisbon',
  SE: 'Europe/Stockholm',
  US: 'America/New_York',
  CA: 'America/Toronto',
};

/** The zone a reader in that country most likely lives in; `fallback` where the country is unknown. */
export function zoneOf(country: string | null | undefined, fallback: string): string {
  return ZONES[country?.toUpperCase() ?? ''] ?? fallback;
}
