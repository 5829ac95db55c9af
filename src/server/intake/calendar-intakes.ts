/** Booked meetings as entries: everybody from outside, so long before it begins. */
import { stableId, type Instant, type JsonObject } from '../../core/base';
import { addressRow, outsiders, type Attendee, type CalendarSettings, type Meeting } from '../../core/intake';
import { WorldFailure, type BoxWork } from '../ports';
import { findEntry, insertEntry, type IntakeRow } from './store/intakes';
import { takeInEntry, type Preview } from './entries';
import { reasonOf, setAside } from './set-aside-one';
import { workspace, type World } from '../platform/world';

const HOUR_MS = 3_600_000;
/** Meetings are read so far ahead, to know when the next look finds something. */
const HORIZON_MS = 21 * 24 * HOUR_MS;
const PREVIEWED = 20;

type Refused = BoxWork['calendar']['out']['refused'];

async function meetings(
  world: World,
  settings: CalendarSettings,
  password: string,
): Promise<{ readonly meetings: readonly Meeting[]; readonly refused: Refused }> {
  const now = await world.clock.now();
  const { how: kind, url, user, privateNetwork } = settings;
  const { zone } = await workspace(world.db);
  const texts = await world.calendars.read({ kind, url, user, password, privateNetwork }, now, now + HORIZON_MS);
  const read = await world.box.run('calendar', { texts, from: now, until: now + HORIZON_MS, zone });
  // Nothing of it can be read: that is the address, not an event.
  const [first] = read.refused;
  if (first && read.meetings.length === 0 && !texts.some((text) => /BEGIN:VCALENDAR/i.test(text.slice(0, 1_000))))
    throw new WorldFailure('broken', `${url}: ${first.why}`, false);
  return read;
}

const spoken = (at: Instant, zone: string, options: Intl.DateTimeFormatOptions): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...options }).format(at);

function rawOf(meeting: Meeting, who: Attendee, settings: CalendarSettings, zone: string): Readonly<Record<string, string>> {
  const outside = outsiders(meeting, settings.ourHosts);
  const names = (people: readonly Attendee[]): string => people.map((person) => person.name || person.address).join(', ');
  return {
    title: meeting.title,
    when: spoken(meeting.start, zone, { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }),
    day: new Intl.DateTimeFormat('en-CA', { timeZone: zone, dateStyle: 'short' }).format(meeting.start),
    time: spoken(meeting.start, zone, { hour: '2-digit', minute: '2-digit' }),
    place: meeting.place,
    name: who.name,
    from: who.address,
    ours: names(meeting.people.filter((person) => !outside.includes(person))),
    others: names(outside.filter((person) => person !== who)),
  };
}

/** A meeting's values as a row and as what flows see. */
export function meetingEntry(raw: Readonly<Record<string, string>>): ReturnType<typeof addressRow> & { readonly answers: JsonObject } {
  return {
    ...addressRow({ name: raw.name ?? '', address: raw.from ?? '', note: `${raw.title ?? ''}, ${raw.when ?? ''}` }),
    answers: { ...raw },
  };
}

/** Takes in the outside people of meetings that begin within the hours ahead. */
export async function lookAtCalendar(
  world: World,
  row: IntakeRow,
  settings: CalendarSettings,
  password: string,
): Promise<{ readonly fresh: number; readonly cursor: null; readonly nextAt: Instant | null; readonly more: false }> {
  const { meetings: all, refused } = await meetings(world, settings, password);
  const now = await world.clock.now();
  const { zone } = await workspace(world.db);
  const ahead = settings.aheadHours * HOUR_MS;
  let fresh = 0;
  for (const { raw, why } of refused)
    await setAside(world, { intakeId: row.id, kind: 'meeting', says: titleOf(raw), why, raw: Buffer.from(raw) });
  for (const meeting of all.filter((entry) => entry.start - ahead <= now))
    for (const who of outsiders(meeting, settings.ourHosts)) {
      try {
        fresh += Number(await take(world, row, rawOf(meeting, who, settings, zone), meeting, now));
      } catch (error) {
        await setAside(world, {
          intakeId: row.id,
          kind: 'meeting',
          says: `${meeting.title}: ${who.address}`,
          why: reasonOf(world, error),
          raw: Buffer.from(JSON.stringify(meeting)),
        });
      }
    }
  const later = all.find((meeting) => meeting.start - ahead > now && outsiders(meeting, settings.ourHosts).length > 0);
  return { fresh, cursor: null, nextAt: later ? later.start - ahead : null, more: false };
}

const titleOf = (raw: string): string => /^SUMMARY[^:]{0,100}:(.{1,200})/im.exec(raw)?.[1]?.trim() ?? 'A meeting';

/** Takes in the outside people of all meetings in an iCalendar text that was set aside. Throws when it cannot be read. */
export async function takeMeetings(world: World, row: IntakeRow, settings: CalendarSettings, text: string): Promise<void> {
  const now = await world.clock.now();
  const { zone } = await workspace(world.db);
  const { meetings: all, refused } = await world.box.run('calendar', { texts: [text], from: now, until: now + HORIZON_MS, zone });
  const [bad] = refused;
  if (bad) throw new WorldFailure('broken', bad.why, false);
  for (const meeting of all)
    for (const who of outsiders(meeting, settings.ourHosts)) await take(world, row, rawOf(meeting, who, settings, zone), meeting, now);
}

async function take(world: World, row: IntakeRow, raw: Readonly<Record<string, string>>, meeting: Meeting, now: Instant): Promise<boolean> {
  // A meeting that is moved is another occasion; the same one read again is not.
  const key = `${meeting.uid} ${meeting.start} ${raw.from ?? ''}`;
  const id = stableId('entry', row.id, key);
  if (await findEntry(world.db, id)) return false;
  const entry = meetingEntry(raw);
  return world.db.begin(async (tx) => {
    const no = await insertEntry(
      tx,
      { id, intakeId: row.id, key, raw, answers: entry.answers, state: 'refused', why: 'not looked at yet' },
      now,
    );
    if (no === undefined) return false;
    await takeInEntry(tx, { id, no, intake: row, raw, ...entry }, now);
    return true;
  });
}

/** The meetings ahead, and whom of each would be taken in when. */
export async function previewCalendar(world: World, settings: CalendarSettings, password: string): Promise<readonly Preview[]> {
  const { zone } = await workspace(world.db);
  const format: Intl.DateTimeFormatOptions = { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' };
  return (await meetings(world, settings, password)).meetings.slice(0, PREVIEWED).map((meeting) => {
    const outside = outsiders(meeting, settings.ourHosts);
    return {
      says: `${spoken(meeting.start, zone, format)}: ${meeting.title}`,
      becomes:
        outside.length === 0
          ? 'is left alone: nobody from outside'
          : `takes in ${outside.map((person) => person.name || person.address).join(', ')} on ${spoken(meeting.start - settings.aheadHours * HOUR_MS, zone, format)}`,
      taken: outside.length > 0,
    };
  });
}
