import ICAL from 'ical.js';
import { DateTime } from 'luxon';
import type { Instant } from '../base';

export interface Attendee {
  readonly name: string;
  /** lower case */
  readonly address: string;
}
export interface Meeting {
  readonly uid: string;
  readonly title: string;
  readonly start: Instant;
  readonly end: Instant;
  readonly place: string;
  readonly words: string;
  readonly organiser: Attendee | null;
  /** everybody who was asked and has not declined, the organiser too */
  readonly people: readonly Attendee[];
}

/** Times of one series: those looked at, from its beginning on. */
const MOST_TIMES = 5_000;

/**
 * The meetings of an iCalendar text (RFC 5545) that begin between two instants, each time of a series by itself; cancelled ones,
 * and those without anybody, are left out. Times without a zone of their own are of `zone` (IANA). A text that is no calendar throws an
 * `Error` that says so.
 */
export function meetingsIn(text: string, from: Instant, until: Instant, zone: string): readonly Meeting[] {
  const instantOf = (time: ICAL.Time): Instant => instantIn(time, zone);
  const calendar = parse(text);
  for (const own of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(new ICAL.Timezone(own));
  const events = calendar.getAllSubcomponents('vevent').map((component) => new ICAL.Event(component));
  const changed = new Map<string, ICAL.Event[]>();
  for (const event of events) if (event.isRecurrenceException()) changed.set(event.uid, [...(changed.get(event.uid) ?? []), event]);
  const out: Meeting[] = [];
  for (const event of events) {
    if (event.isRecurrenceException()) continue;
    for (const other of changed.get(event.uid) ?? []) event.relateException(other.component);
    if (!event.isRecurring()) {
      put(event, event.startDate, event.endDate);
      continue;
    }
    const times = event.iterator();
    for (let i = 0; i < MOST_TIMES; i++) {
      const time = times.next() as ICAL.Time | null;
      if (!time || instantOf(time) >= until) break;
      if (instantOf(time) < from - 7 * 86_400_000) continue;
      const { item, startDate, endDate } = event.getOccurrenceDetails(time);
      put(item, startDate, endDate);
    }
  }
  return out.sort((a, b) => a.start - b.start);

  function put(event: ICAL.Event, startDate: ICAL.Time, endDate: ICAL.Time): void {
    const start = instantOf(startDate);
    const status = event.component.getFirstPropertyValue('status');
    if (start < from || start >= until || startDate.isDate || String(status).toUpperCase() === 'CANCELLED') return;
    const organiser = event.component.getFirstProperty('organizer');
    const people = new Map<string, Attendee>();
    for (const property of [...(organiser ? [organiser] : []), ...event.component.getAllProperties('attendee')]) {
      const who = attendeeOf(property);
      if (who && !people.has(who.address)) people.set(who.address, who);
    }
    if (people.size === 0) return;
    out.push({
      uid: event.uid,
      title: event.summary || 'Meeting',
      start,
      end: instantOf(endDate),
      place: event.location || '',
      words: event.description || '',
      organiser: organiser ? (attendeeOf(organiser) ?? null) : null,
      people: [...people.values()],
    });
  }
}

function parse(text: string): ICAL.Component {
  try {
    const root = new ICAL.Component(ICAL.parse(text) as never);
    if (root.name === 'vcalendar') return root;
  } catch {
    // Said below.
  }
  throw new Error('this is no calendar: iCalendar text begins with BEGIN:VCALENDAR');
}

/** A zone that the text names without describing it is looked up by its name. */
function instantIn(time: ICAL.Time, zone: string): Instant {
  if (time.zone !== ICAL.Timezone.localTimezone) return time.toJSDate().getTime();
  const { year, month, day, hour, minute, second } = time;
  const named = DateTime.fromObject(
    { year, month, day, hour, minute, second },
    { zone: (time as { readonly timezone?: string }).timezone || zone },
  );
  return (named.isValid ? named : DateTime.fromObject({ year, month, day, hour, minute, second }, { zone })).toMillis();
}

function attendeeOf(property: ICAL.Property): Attendee | undefined {
  const address = String(property.getFirstValue())
    .replace(/^mailto:/i, '')
    .trim()
    .toLowerCase();
  if (!address.includes('@')) return undefined;
  const part = (name: string): string => {
    const value = property.getFirstParameter(name);
    return typeof value === 'string' ? value : '';
  };
  if (part('partstat').toUpperCase() === 'DECLINED' || part('cutype').toUpperCase() === 'ROOM') return undefined;
  return {
    name: part('cn')
      .replace(/^["']|["']$/g, '')
      .replace(address, '')
      .trim(),
    address,
  };
}

/** Those of a meeting whose address is of none of our hosts, wherever they stand in it. */
export function outsiders(meeting: Meeting, ourHosts: readonly string[]): readonly Attendee[] {
  const ours = new Set(ourHosts.map((host) => host.toLowerCase()));
  return meeting.people.filter((person) => {
    const host = person.address.split('@')[1] ?? '';
    return ![...ours].some((our) => host === our || host.endsWith(`.${our}`));
  });
}
