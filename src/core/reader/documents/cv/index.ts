import type { Instant } from '../../../base';
import { documentLines, plainFold, type DocumentLine } from '../lines';
import { periodText } from '../periods';
import { nothing, picked, type Picked } from '../picked';
import { classesOf, languagesOf, licencesOf, listOf, skillsOf, spokenBy, type Spoken } from './abilities';
import { personOf, type Person } from './person';
import { CV_SECTIONS } from './sections';
import { stationsOf, withStations, type Station } from './stations';
import { ROLE } from './words';
import { gapsOf, gapText, spokenOf, workedMonths, type Gap, type YearsIn } from './work';

export type { Gap, Person, Spoken, Station, YearsIn };

/** All that is read of a CV; nothing in it is invented, and what is not said is not there. */
export interface Cv {
  readonly person: Person;
  /** newest first */
  readonly jobs: readonly Station[];
  readonly training: readonly Station[];
  readonly breaks: readonly Station[];
  readonly gaps: readonly Gap[];
  readonly skills: readonly string[];
  readonly languages: { readonly spoken: readonly Spoken[]; readonly listed: boolean };
  readonly driving: { readonly classes: readonly string[]; readonly quote: string | null };
}

/** `now` is the day the paper was sent. */
export function readCv(text: string, now: Instant): Cv {
  return cvOf(linesOf(text, now), now);
}

const linesOf = (text: string, now: Instant): readonly DocumentLine[] => withStations(documentLines(text, CV_SECTIONS), now);

const newestFirst = (a: Station, b: Station): number => b.period.end - a.period.end || b.period.start - a.period.start;

function cvOf(lines: readonly DocumentLine[], now: Instant): Cv {
  const all = [...stationsOf(lines, 'jobs', now), ...stationsOf(lines, 'education', now)];
  return {
    person: personOf(lines),
    jobs: all.filter((station) => station.kind === 'job').sort(newestFirst),
    training: all.filter((station) => station.kind === 'training').sort(newestFirst),
    breaks: all.filter((station) => station.kind === 'break'),
    gaps: gapsOf(all, now),
    skills: skillsOf(lines),
    languages: spokenBy(lines),
    driving: classesOf(lines),
  };
}

/** Who somebody is, by the papers they sent: every value with the words it stands in. `now` is the day it was sent. */
export function pickCv(text: string, now: Instant, counted: readonly YearsIn[]): Readonly<Record<string, Picked>> {
  const lines = linesOf(text, now);
  const cv = cvOf(lines, now);
  const { name, email, phone, place, city } = cv.person;
  const [latest] = cv.jobs;
  return {
    name,
    email,
    phone,
    place: place.quote === null ? city : place,
    job_title: latest && latest.title !== '' ? picked(latest.title, latest.quote, 0.85) : labelledRole(lines),
    employer: latest && latest.at !== '' ? picked(latest.at, latest.quote, 0.8) : nothing(),
    ...workOf(cv, now, counted),
    education: educationOf(cv, lines),
    skills: listOf(lines, 'skills'),
    languages: languagesOf(lines),
    ...licencesOf(lines),
  };
}

const saidOf = (stations: readonly Station[]): string => stations.map((station) => station.quote).join(' … ');
const stationText = (station: Station): string =>
  `${periodText(station.period)}: ${[station.title, station.at, station.place].filter((part) => part !== '').join(', ')}`;

function labelledRole(lines: readonly DocumentLine[]): Picked {
  const line = lines.find(
    (entry) => entry.section === '' && ROLE.test(entry.folded) && entry.text.length <= 60 && !entry.text.includes('@'),
  );
  return line ? picked(line.text.replace(/^[^:]{2,20}:\s+/, ''), line.text, 0.6) : nothing();
}

function workOf(cv: Cv, now: Instant, counted: readonly YearsIn[]): Readonly<Record<string, Picked>> {
  const { jobs } = cv;
  if (jobs.length === 0) return { jobs: nothing(), years: nothing(), gaps: nothing() };
  const sure = jobs.every((job) => job.period.exact) ? 0.9 : 0.75;
  const yearsOf = (stations: readonly Station[]): number => Math.round(workedMonths(stations, now) / 6) / 2;
  const yearsIn = ({ words }: YearsIn): Picked => {
    const speaks = spokenOf(words);
    const meant = jobs.filter((job) => speaks.test(plainFold([job.title, job.at, ...job.about].join(' '))));
    return meant.length > 0 ? picked(yearsOf(meant), saidOf(meant), sure) : nothing();
  };
  return {
    jobs: picked(jobs.map(stationText).join('; '), saidOf(jobs), sure),
    years: picked(yearsOf(jobs), saidOf(jobs), sure),
    gaps: picked(cv.gaps.length === 0 ? 'none' : cv.gaps.map(gapText).join('; '), saidOf(jobs), 0.75),
    ...Object.fromEntries(counted.map((count) => [count.id, yearsIn(count)])),
  };
}

function educationOf(cv: Cv, lines: readonly DocumentLine[]): Picked {
  if (cv.training.length > 0) return picked(cv.training.map(stationText).join('; '), saidOf(cv.training), 0.85);
  const short = lines.filter((line) => line.section === 'education' && line.text.length <= 120).slice(0, 6);
  return short.length > 0 ? picked(short.map((line) => line.text).join('; '), short.map((line) => line.text).join(' … '), 0.7) : nothing();
}
