import { fold } from '../base';

export type UnitKind = 'area' | 'length' | 'mass' | 'volume' | 'power' | 'energy' | 'time';

/** A unit of measure: how it is written by us, its UCUM code, its size in the first unit of its kind. */
export interface Unit {
  /** as values are shown with it: `m²` */
  readonly sign: string;
  /** Unified Code for Units of Measure (ucum.org), case sensitive: `m2` */
  readonly ucum: string;
  readonly kind: UnitKind;
  /** SI base or derived units of one: exact where the definition is */
  readonly size: number;
  /** folded forms in the languages of the reader, longest first within one unit; letters only, `*` for any ending */
  readonly names: readonly string[];
}

const unit = (sign: string, ucum: string, kind: UnitKind, size: number, names: string): Unit => ({
  sign,
  ucum,
  kind,
  size,
  names: names.split('|'),
});

/** Sizes: SI Brochure (9th ed.), and NIST Handbook 44, appendix C, for feet, acres, miles, pounds. */
export const UNITS: readonly Unit[] = [
  unit(
    'm²',
    'm2',
    'area',
    1,
    'm²|m2|qm|sqm|sq m|sq. m|mq|square met*|quadratmeter*|vierkante meter|metros cuadrados|metres carres|metri quadrati|metrow kwadratowych',
  ),
  unit('ha', 'har', 'area', 10_000, 'ha|hectare*|hektar*|hectarea*|ettar*'),
  unit('ft²', '[sft_i]', 'area', 0.09290304, 'ft²|sq ft|sq. ft|sqft|square feet|square foot'),
  unit('acre', '[acr_us]', 'area', 4046.8564224, 'acre|acres'),
  unit('km²', 'km2', 'area', 1_000_000, 'km²|km2|square kilomet*'),
  unit('m', 'm', 'length', 1, 'm|meter|meters|metre|metres|metros|metri'),
  unit('cm', 'cm', 'length', 0.01, 'cm|centimet*|zentimeter'),
  unit('mm', 'mm', 'length', 0.001, 'mm|millimet*|milimetros'),
  unit('km', 'km', 'length', 1000, 'km|kilomet*'),
  unit('ft', '[ft_i]', 'length', 0.3048, 'ft|feet|foot'),
  unit('mi', '[mi_i]', 'length', 1609.344, 'mi|mile|miles|meilen|millas'),
  unit('kg', 'kg', 'mass', 1, 'kg|kilo|kilos|kilogram*|kilogramm*'),
  unit('t', 't', 'mass', 1000, 't|to|ton|tons|tonne|tonnes|tonnen|tonnellate|toneladas|tonelada'),
  unit('g', 'g', 'mass', 0.001, 'g|gram|grams|gramm'),
  unit('lb', '[lb_av]', 'mass', 0.45359237, 'lb|lbs|pounds'),
  unit('l', 'L', 'volume', 1, 'l|liter|liters|litre|litres|litros|litri'),
  unit('hl', 'hL', 'volume', 100, 'hl|hectolit*|hektoliter'),
  unit('m³', 'm3', 'volume', 1000, 'm³|m3|cubic met*|kubikmeter|metros cubicos|metres cubes'),
  unit('kW', 'kW', 'power', 1, 'kw|kilowatt*'),
  unit('MW', 'MW', 'power', 1000, 'mw|megawatt*'),
  unit('kWh', 'kW.h', 'energy', 1, 'kwh|kilowattstunden|kilowatt hours'),
  unit('MWh', 'MW.h', 'energy', 1000, 'mwh|megawattstunden|megawatt hours'),
  unit('h', 'h', 'time', 1, 'h|hour|hours|stunde|stunden|uur|uren|hora|horas|heure|heures'),
  unit('d', 'd', 'time', 24, 'd|day|days|tag|tage|dag|dagen|dia|dias|jour|jours'),
  unit('min', 'min', 'time', 1 / 60, 'min|minute|minutes|minuten|minutos'),
];

const BY_NAME = new Map(
  UNITS.flatMap((entry) =>
    [entry.sign, entry.ucum, ...entry.names.filter((name) => !name.endsWith('*'))].map((name) => [name, entry] as const),
  ),
);
const ENDINGS = UNITS.flatMap((entry) =>
  entry.names.filter((name) => name.endsWith('*')).map((name) => [name.slice(0, -1), entry] as const),
);

/** The unit that a sign, a UCUM code or a word names: `m²`, `m2`, `Hektar`; undefined for words of things that are counted. */
export function unitOf(text: string): Unit | undefined {
  const plain = text.trim();
  const folded = fold(plain);
  return (
    BY_NAME.get(plain) ??
    BY_NAME.get(folded) ??
    ENDINGS.find(([start]) => folded.startsWith(start) && !folded.slice(start.length).includes(' '))?.[1]
  );
}

/** A value in one unit told in another of its kind; undefined when the two measure different things. */
export function convert(value: number, from: Unit, to: Unit): number | undefined {
  if (from.kind !== to.kind) return undefined;
  return from === to ? value : tidy((value * from.size) / to.size);
}

/** Without the dust of binary fractions: twelve significant digits. */
const tidy = (value: number): number => Number(value.toPrecision(12));

const escape = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
const PATTERNS = new Map<UnitKind, RegExp>();

/** Matches, at the beginning of what stands behind a figure, a unit of the kind: group 1 is the unit as written. */
function patternOf(kind: UnitKind): RegExp {
  let pattern = PATTERNS.get(kind);
  if (!pattern) {
    const names = UNITS.filter((entry) => entry.kind === kind)
      .flatMap((entry) => entry.names)
      .sort((a, b) => b.length - a.length)
      .map((name) => (name.endsWith('*') ? `${escape(name.slice(0, -1))}\\p{L}*` : escape(name)));
    PATTERNS.set(kind, (pattern = new RegExp(`^[\\s-]?(${names.join('|')})(?![\\p{L}\\p{N}²³])`, 'u')));
  }
  return pattern;
}

/** The unit of a kind that a folded text begins with, and how many characters it takes. */
export function leadingUnit(folded: string, kind: UnitKind): { readonly unit: Unit; readonly length: number } | undefined {
  const found = patternOf(kind).exec(folded);
  const unit = found?.[1] === undefined ? undefined : unitOf(found[1]);
  return found && unit?.kind === kind ? { unit, length: found[0].length } : undefined;
}
