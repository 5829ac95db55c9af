import * as cheerio from 'cheerio';
import { cleanText } from '../../core/base';
import { meetingsIn, type Meeting } from '../../core/intake';
import type { BoxWork } from '../ports';

const RAW_MAX = 20_000;

/** Meetings of several calendars; one event that cannot be read leaves the others as they are. */
export function meetingsOf({ texts, from, until, zone }: BoxWork['calendar']['in']): BoxWork['calendar']['out'] {
  const meetings: Meeting[] = [];
  const refused: { raw: string; why: string }[] = [];
  for (const text of texts)
    for (const part of parts(cleanText(text))) {
      try {
        meetings.push(...meetingsIn(part, from, until, zone));
      } catch (error) {
        refused.push({ raw: part.slice(0, RAW_MAX), why: error instanceof Error ? error.message : 'it cannot be read' });
      }
    }
  return { meetings: meetings.sort((a, b) => a.start - b.start), refused };
}

/**
 * A calendar whole where it can be read whole; else each of its events by itself, with the zones of all. The events of one
 * series stay together: they change each other.
 */
function parts(text: string): readonly string[] {
  try {
    meetingsIn(text, 0, 1, 'UTC');
    return [text];
  } catch {
    const lines = text.split(/\r?\n/);
    const zones = blocks(lines, 'VTIMEZONE').flat();
    const series = new Map<string, string[]>();
    for (const event of blocks(lines, 'VEVENT')) {
      const uid = event.find((line) => /^UID[:;]/i.test(line)) ?? `#${series.size}`;
      series.set(uid, [...(series.get(uid) ?? []), ...event]);
    }
    if (series.size === 0) return [text];
    return [...series.values()].map((events) => ['BEGIN:VCALENDAR', 'VERSION:2.0', ...zones, ...events, 'END:VCALENDAR'].join('\r\n'));
  }
}

function blocks(lines: readonly string[], name: string): readonly (readonly string[])[] {
  const out: string[][] = [];
  let open: string[] | undefined;
  for (const line of lines) {
    const word = line.trim().toUpperCase();
    if (word === `BEGIN:${name}`) open = [];
    open?.push(line);
    if (word === `END:${name}` && open) {
      out.push(open);
      open = undefined;
    }
  }
  return out;
}

export function calendarsIn({ xml }: BoxWork['calendar answer']['in']): readonly string[] {
  const $ = cheerio.load(xml, { xml: true });
  return $('*')
    .filter((_, element) => /(?:^|:)calendar-data$/.test((element as { name?: string }).name ?? ''))
    .map((_, element) => $(element).text())
    .get();
}
