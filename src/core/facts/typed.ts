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
      return /^\d{4}-\d\d-\d\d$/.test(text) ? { ok: true, value: text } : { ok: false, why: `“${text}” is not a date: write 2026-11-24` };
  }
}

/** The value as a person reads it, with its unit. */
export function printValue(value: FactValue | undefined, unit?: string): string {
  if (value === null || value === undefined) return '–';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  const text =
    typeof value === 'number' && unit !== undefined ? value.toLocaleString('en-GB', { maximumFractionDigits: 4 }) : String(value);
  return unit === undefined ? text : `${text} ${unit}`;
}
