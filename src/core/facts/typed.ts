import { clip } from '../base';
import type { Field, FactValue } from './catalogue';

export type TypedReading =
  { readonly ok: true; readonly value: FactValue; readonly note?: string } | { readonly ok: false; readonly why: string };

const NUMBER = /^[+-]?\d{1,3}(?:[ .,'’]\d{3})+(?:[.,]\d+)?$|^[+-]?\d+(?:[.,]\d+)?$/;
const AREA_TO_HA: Readonly<Record<string, number>> = {
  ha: 1,
  hectare: 1,
  hectares: 1,
  m2: 0.0001,
  'm²': 0.0001,
  qm: 0.0001,
  acre: 0.404686,
  acres: 0.404686,
};
const YES = /^(yes|y|true|1|ja|oui|si|sí|tak)$/i;
const NO = /^(no|n|false|0|nein|nee|non|nie)$/i;
const EMAIL = /^[a-z0-9](?:[a-z0-9._%+'-]*[a-z0-9_+])?@(?:[a-z0-9](?:[a-z0-9-]*[a-z0-9])?\.)+[a-z]{2,}$/;

/** Areas above this in a column that names no unit are read as square metres: no glasshouse site of ours has so many hectares. */
const HECTARES_AT_MOST = 100;

function localNumber(text: string): number | undefined {
  const plain = text.trim();
  if (!NUMBER.test(plain)) return undefined;
  const lastSeparator = Math.max(plain.lastIndexOf(','), plain.lastIndexOf('.'));
  const decimals = lastSeparator < 0 ? '' : plain.slice(lastSeparator + 1);
  const separators = plain.match(/[.,]/g) ?? [];
  const grouped =
    separators.length > 0 && decimals.length === 3 && (separators.length > 1 || !plain.startsWith('0')) && new Set(separators).size === 1;
  const digits =
    grouped || lastSeparator < 0 ? plain.replace(/[ .,'’]/g, '') : `${plain.slice(0, lastSeparator).replace(/[ .,'’]/g, '')}.${decimals}`;
  return Number(digits);
}

function area(text: string): TypedReading {
  const parts = /^([\d .,'’]{1,40}?)\s{0,4}([a-zA-Z²][a-zA-Z²2]{0,20})?$/.exec(text.trim());
  const digits = parts?.[1]?.trim() ?? '';
  // In hectares one separator is always a decimal one: nobody has 4,250 ha of glass, but somebody has 4.250.
  const decimal = AREA_TO_HA[parts?.[2]?.toLowerCase() ?? ''] === 1 && /^\d+[.,]\d{3}$/.test(digits);
  const amount = digits === '' ? undefined : decimal ? Number(digits.replace(',', '.')) : localNumber(digits);
  if (amount === undefined) return { ok: false, why: `“${text}” is not an area` };
  const unit = parts?.[2]?.toLowerCase();
  const factor = unit === undefined ? (amount > HECTARES_AT_MOST ? 0.0001 : 1) : AREA_TO_HA[unit];
  if (factor === undefined) return { ok: false, why: `unit “${unit}” is not an area: use ha or m²` };
  const value = Math.round(amount * factor * 10_000) / 10_000;
  return unit === undefined && factor !== 1 ? { ok: true, value, note: 'read as m²' } : { ok: true, value };
}

function site(text: string): TypedReading {
  const bare = text
    .trim()
    .replace(/^https?:\/\//i, '')
    .replace(/^www\./i, '')
    .replace(/\/{1,20}$/, '');
  const host = bare.split(/[/?#]/)[0]?.toLowerCase() ?? '';
  if (!/^(?:[\p{L}\p{N}](?:[\p{L}\p{N}-]*[\p{L}\p{N}])?\.)+[\p{L}]{2,}$/u.test(host)) return { ok: false, why: `“${text}” is not a site` };
  return { ok: true, value: host };
}

/**
 * Reads what a person or a file wrote as a value of the field: decimal comma or point, hectares or square metres,
 * yes and no in six languages. An empty text is `null`.
 */
export function readTyped(field: Pick<Field, 'type' | 'unit'>, raw: string): TypedReading {
  const text = raw.trim().replace(/\s+/g, ' ');
  if (text === '' || /^[-–—.?]$|^(n\/a|null|none|unknown|onbekend|keine?)$/i.test(text)) return { ok: true, value: null };
  switch (field.type) {
    case 'text':
      return { ok: true, value: text };
    case 'number': {
      if (field.unit === 'ha') return area(text);
      const value = localNumber(text.replace(/\s{0,4}(EUR|€)$/i, ''));
      return value === undefined ? { ok: false, why: `“${text}” is not a number` } : { ok: true, value };
    }
    case 'year': {
      const year = Number(/\b(19|20)\d\d\b/.exec(text)?.[0]);
      return Number.isInteger(year) ? { ok: true, value: year } : { ok: false, why: `“${text}” is not a year` };
    }
    case 'yes/no':
      return YES.test(text)
        ? { ok: true, value: true }
        : NO.test(text)
          ? { ok: true, value: false }
          : { ok: false, why: `“${text}” is neither yes nor no` };
    case 'e-mail': {
      const address = text
        .replace(/^mailto:/i, '')
        .replace(/^<|>$/g, '')
        .toLowerCase();
      return EMAIL.test(address) && !address.includes('..')
        ? { ok: true, value: address }
        : { ok: false, why: `“${text}” is not an e-mail address` };
    }
    case 'phone':
      return /\d{5,}/.test(text.replace(/\D/g, '')) ? { ok: true, value: text } : { ok: false, why: `“${text}” is not a phone number` };
    case 'site':
      return site(text);
    case 'date':
      return isDay(text) ? { ok: true, value: text } : { ok: false, why: `“${clip(text, 60)}” is not a date: write 2026-11-24` };
  }
}

/** A day of the calendar, from 1800 to 2199. */
function isDay(text: string): boolean {
  if (!/^(?:18|19|20|21)\d\d-\d\d-\d\d$/.test(text)) return false;
  const at = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(text);
}

/** Larger numbers are slips of the hand. */
const LARGEST = 1e12;
const LONGEST: Readonly<Partial<Record<Field['type'], number>>> = { text: 2_000, 'e-mail': 320, phone: 60, site: 300 };

/**
 * Whether a value is one that the field can have: its type, its length, its range. What a program sends is not read as words are:
 * a number is no e-mail address.
 */
export function checkTyped(field: Pick<Field, 'type' | 'unit'>, raw: FactValue): TypedReading {
  if (raw === null) return { ok: true, value: null };
  if (typeof raw === 'string') {
    const longest = LONGEST[field.type] ?? 200;
    if (raw.length > longest)
      return { ok: false, why: `at most ${longest.toLocaleString('en-GB')} characters, not ${raw.length.toLocaleString('en-GB')}` };
    const reading = readTyped(field, raw);
    return reading.ok && typeof reading.value === 'number' ? checkTyped(field, reading.value) : reading;
  }
  if (typeof raw === 'boolean')
    return field.type === 'yes/no' ? { ok: true, value: raw } : { ok: false, why: `${raw ? 'true' : 'false'} is no ${field.type}` };
  if (field.type === 'year')
    return Number.isInteger(raw) && raw >= 1000 && raw < 2200 ? { ok: true, value: raw } : { ok: false, why: `${raw} is not a year` };
  if (field.type !== 'number') return { ok: false, why: `the number ${raw} is no ${field.type}` };
  return Number.isFinite(raw) && Math.abs(raw) <= LARGEST ? { ok: true, value: raw } : { ok: false, why: `${raw} is out of all range` };
}

/** The value as a person reads it, with its unit. */
export function printValue(value: FactValue | undefined, unit?: string): string {
  if (value === null || value === undefined) return '–';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  const text =
    typeof value === 'number' && unit !== undefined ? value.toLocaleString('en-GB', { maximumFractionDigits: 4 }) : String(value);
  return unit === undefined ? text : `${text} ${unit}`;
}
