import type * as cheerio from 'cheerio';

type Page = ReturnType<typeof cheerio.load>;
type Property = readonly [label: string, value: string];

const MAX_DEPTH = 6;
const MAX_PROPERTIES = 300;
/** What only machines need, or says nothing about the firm. */
const SKIPPED = /^@(?:context|id)$|^(?:url|logo|image|sameAs|potentialAction|target|query-input|inLanguage|breadcrumb|itemListElement)$/;

/** `numberOfEmployees` → `number of employees`: read like any labelled value. */
const labelOf = (property: string): string =>
  property
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/[_-]+/g, ' ')
    .toLowerCase();

/** Properties of JSON-LD (schema.org) as labelled values; what cannot be parsed is left out. */
export function linkedData($: Page): readonly Property[] {
  const out: Property[] = [];
  for (const node of $('script[type="application/ld+json"]').toArray()) {
    try {
      visit(JSON.parse($(node).text()), '', 0, out);
    } catch {
      /* half a document says nothing */
    }
  }
  return out.slice(0, MAX_PROPERTIES);
}

function visit(value: unknown, label: string, depth: number, out: Property[]): void {
  if (depth > MAX_DEPTH || value === null || value === undefined) return;
  if (Array.isArray(value)) {
    for (const entry of value) visit(entry, label, depth + 1, out);
    return;
  }
  if (typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean') {
    const text = String(value).replace(/\s+/g, ' ').trim();
    if (label !== '' && text !== '') out.push([label, text]);
    return;
  }
  if (typeof value !== 'object') return;
  const entries = Object.entries(value as Record<string, unknown>);
  const own = Object.fromEntries(entries);
  // A quantity or a named property is one value, not two.
  if (typeof own.value === 'number' || typeof own.value === 'string') {
    const name = typeof own.name === 'string' ? own.name : label;
    const unit =
      typeof own.unitText === 'string'
        ? ` ${own.unitText}`
        : typeof own.unitCode === 'string'
          ? ` ${UNIT_CODES[own.unitCode] ?? own.unitCode}`
          : '';
    out.push([labelOf(name), `${own.value}${unit}`]);
    return;
  }
  if (typeof own.name === 'string' && typeof own.jobTitle === 'string') {
    out.push([labelOf(own.jobTitle), own.name]);
    return;
  }
  for (const [property, entry] of entries)
    if (!SKIPPED.test(property) && property !== '@type') visit(entry, property === '@graph' ? '' : labelOf(property), depth + 1, out);
}

/** UN/CEFACT common codes that schema.org uses for units. */
const UNIT_CODES: Readonly<Record<string, string>> = { HAR: 'ha', MTK: 'm²', ACR: 'acres', KTM: 'km', KWH: 'kWh', MWH: 'MWh' };

/** Microdata properties (`itemprop`) with their visible or machine-readable value. */
export function microdata($: Page): readonly Property[] {
  return $('[itemprop]')
    .toArray()
    .slice(0, MAX_PROPERTIES)
    .flatMap((node): Property[] => {
      const element = $(node);
      if (element.attr('itemscope') !== undefined) return [];
      const property = element.attr('itemprop') ?? '';
      const value = (element.attr('content') ?? element.attr('datetime') ?? element.text()).replace(/\s+/g, ' ').trim();
      return property === '' || value === '' || value.length > 200 || SKIPPED.test(property) ? [] : [[labelOf(property), value]];
    });
}
