import { clip, fold } from '../base';
import { convert, NUMERALS, unitOf, UNITS } from '../units';
import { countryOf } from './countries';
import { dayOf, type DayOrder } from './days';
import type { Field, FactValue } from './field';

export type TypedReading =
  { readonly ok: true; readonly value: FactValue; readonly note?: string } | { readonly ok: false; readonly why: string };

const NUMBER = /^[+-]?\d{1,3}(?:[ .,'’]\d{3})+(?:[.,]\d+)?$|^[+-]?\d+(?:[.,]\d+)?$/;
const YES = /^(yes|y|true|1|ja|oui|si|sí|tak)$/i;
const NO = /^(no|n|false|0|nein|nee|non|nie)$/i;
const EMAIL = /^[a-z0-9](?:[a-z0-9._%+'-]*[a-z0-9_+])?@(?:[a-z0-9](?:[a-z0-9-]*[a-z0-9])?\.)+[a-z]{2,}$/;

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

/** `4.2`, `4,2`, “four”, “a dozen”, “two and a half”. */
function figure(text: string): number | undefined {
  const word = fold(text)
    .replace(/^(?:about|some|around|approx\.?|ca\.?|circa|etwa|rund|environ|unos|~)\s+/, '')
    .replace(/^an? (?=dozen|half)/, '');
  const whole = / and a half$/.test(word) ? NUMERALS[word.slice(0, -' and a half'.length)] : undefined;
  return localNumber(word) ?? NUMERALS[word] ?? (whole === undefined ? undefined : whole + 0.5);
}

type Measured = Pick<Field, 'type' | 'unit'> & Partial<Pick<Field, 'most' | 'least' | 'bare' | 'options'>>;

/** A text as a figure and what stands behind it: as much of it as makes a figure. */
function apart(text: string): { readonly digits: string; readonly value: number; readonly word: string } | undefined {
  const glued = text.replace(/^([+-]?\d[\d.,'’]*)(?=[^\d\s.,'’])/, '$1 ').split(' ');
  for (let upTo = Math.min(glued.length, 6); upTo > 0; upTo--) {
    const digits = glued.slice(0, upTo).join(' ');
    const value = figure(digits);
    if (value !== undefined) return { digits, value, word: glued.slice(upTo).join(' ') };
  }
  return undefined;
}

/** A figure with the word behind it: in the field's own unit, one that measures the same, or none. */
function quantity(field: Measured, text: string): TypedReading {
  const own = field.unit ?? '';
  const measure = unitOf(own);
  const said = apart(text);
  if (!said) return { ok: false, why: `“${clip(text, 60)}” is not ${measure ? `an amount in ${own}` : 'a number'}` };
  const { digits, value, word } = said;
  if (word === '') {
    const other = field.bare && value > field.bare.above ? unitOf(field.bare.unit) : undefined;
    const meant = measure && other ? convert(value, other, measure) : undefined;
    return meant === undefined ? { ok: true, value } : { ok: true, value: fine(meant), note: `read as ${field.bare?.unit ?? ''}` };
  }
  if (fold(word) === fold(own)) return { ok: true, value: possible(field, digits, value, 1) };
  const unit = unitOf(word);
  const factor = measure && unit ? convert(1, unit, measure) : undefined;
  if (factor !== undefined) return { ok: true, value: fine(possible(field, digits, value, factor)) };
  if (word === '€' && own === 'EUR') return { ok: true, value };
  if (measure) {
    const also = UNITS.filter((entry) => entry.kind === measure.kind).map((entry) => entry.sign);
    return { ok: false, why: `unit “${clip(word, 30)}” is not one of ${measure.kind}: use ${also.join(', ')}` };
  }
  return { ok: false, why: own === '' ? `“${clip(text, 60)}” is not a number` : `“${clip(word, 30)}” is not ${own}` };
}

/** “4.250 ha” may be four thousand or four and a quarter: where the field cannot be so large, the point is a decimal one. */
function possible(field: Measured, digits: string, grouped: number, factor: number): number {
  const decimal = /^[+-]?\d+[.,]\d{3}$/.test(digits) ? Number(digits.replace(',', '.')) : grouped;
  return (field.most !== undefined && grouped * factor > field.most ? decimal : grouped) * factor;
}

/** Converted values to a ten-thousandth. */
const fine = (value: number): number => Math.round(value * 10_000) / 10_000;

function choice(field: Measured, text: string): TypedReading {
  if (!field.options || field.options.length === 0) return { ok: true, value: text };
  const option = field.options.find((entry) => fold(entry) === fold(text));
  return option === undefined
    ? { ok: false, why: `“${clip(text, 60)}” is none of ${field.options.join(', ')}` }
    : { ok: true, value: option };
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
 * Reads what a person or a file wrote as a value of the field: decimal comma or point, numbers in words, units that measure
 * the same as the field's, yes and no in six languages, days as they are written in eleven (`order`: which number comes first).
 * An empty text is `null`.
 */
export function readTyped(field: Measured, raw: string, order?: DayOrder): TypedReading {
  const text = raw.trim().replace(/\s+/g, ' ');
  if (text === '' || /^[-–—.?]$|^(n\/a|null|none|unknown|onbekend|keine?)$/i.test(text)) return { ok: true, value: null };
  switch (field.type) {
    case 'text':
    case 'language':
      return { ok: true, value: text };
    // Its lines are its own.
    case 'long text':
      return { ok: true, value: raw.trim() };
    case 'choice':
      return choice(field, text);
    case 'list':
      return {
        ok: true,
        value: text
          .split(/[,;]/)
          .map((entry) => entry.trim())
          .filter((entry) => entry !== '')
          .join(', '),
      };
    case 'country':
      return { ok: true, value: countryOf(text) ?? text };
    case 'number':
    case 'money':
      return quantity(field, text);
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
      return day(text, order);
  }
}

function day(text: string, order: DayOrder | undefined): TypedReading {
  const iso = dayOf(text, order);
  if (iso === undefined) return { ok: false, why: `“${clip(text, 60)}” is not a date: write 24 November 2026 or 2026-11-24` };
  return iso === text ? { ok: true, value: iso } : { ok: true, value: iso, note: `read as ${iso}` };
}

/** Larger numbers are slips of the hand. */
const LARGEST = 1e12;
const LONGEST: Readonly<Partial<Record<Field['type'], number>>> = {
  text: 2_000,
  'long text': 20_000,
  list: 2_000,
  'e-mail': 320,
  phone: 60,
  site: 300,
};

/**
 * Whether a value is one that the field can have: its type, its length, its range. What a program sends is not read as words are:
 * a number is no e-mail address.
 */
export function checkTyped(field: Measured, raw: FactValue): TypedReading {
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
  if (field.type !== 'number' && field.type !== 'money') return { ok: false, why: `the number ${raw} is no ${field.type}` };
  if (!Number.isFinite(raw) || Math.abs(raw) > LARGEST) return { ok: false, why: `${raw} is out of all range` };
  const why = beyond(field, raw);
  return why === undefined ? { ok: true, value: raw } : { ok: false, why };
}

/** Why a figure cannot be a value of the field, or undefined. */
export function beyond(field: Measured, value: FactValue): string | undefined {
  if (typeof value !== 'number') return undefined;
  if (field.most !== undefined && value > field.most)
    return `${printValue(value, field.unit ?? '')} cannot be: not above ${printValue(field.most, field.unit ?? '')}`;
  if (field.least !== undefined && value < field.least)
    return `${printValue(value, field.unit ?? '')} cannot be: not below ${printValue(field.least, field.unit ?? '')}`;
  return undefined;
}

/** A day as it is kept, and as it is read: 5 Mar 2027. */
const DAY = /^\d{4}-\d\d-\d\d$/;
const DAY_TEXT = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });

/** The value as a person reads it, with its unit. */
export function printValue(value: FactValue | undefined, unit?: string): string {
  if (value === null || value === undefined) return '–';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string' && DAY.test(value)) return DAY_TEXT.format(Date.parse(value));
  const text =
    typeof value === 'number' && unit !== undefined ? value.toLocaleString('en-GB', { maximumFractionDigits: 4 }) : String(value);
  return unit === undefined || unit === '' ? text : `${text} ${unit}`;
}
