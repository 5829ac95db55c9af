import type { Instant } from '../../base';
import type { DocumentPart } from '../../flow/syntax';
import { sentencesOf } from '../sentences';
import { NOT } from '../skills/standing';
import { documentLines, listed, plainFold, type DocumentLine, type Sections } from './lines';
import { languageOf, levelOf } from './languages';
import { monthsCovered, monthText, periodsIn, periodText, type Period } from './periods';
import { nothing, picked, type Picked } from './picked';

const SECTIONS: Sections = {
  education:
    'education(?: and training)?|education & training|training and education|training|qualifications|academic background|studies|apprenticeship|(?:aus|schul)bildung|ausbildung(?: und studium)?|bildung(?:sweg)?|schulische laufbahn|studium|opleiding(?:en)?|onderwijs|scholing|formacion(?: academica)?|educacion|estudios|formation(?:s)?|etudes|parcours scolaire|diplomes',
  jobs: '(?:work |professional |employment |relevant )?(?:experience|history|background)|employment|work|career(?: history)?|positions?(?: held)?|jobs|(?:berufs|arbeits)erfahrung|berufspraxis|beruflicher werdegang|werdegang|berufliche stationen|praxis|werkervaring|ervaring|loopbaan|experiencia(?: laboral| profesional)?|trayectoria(?: profesional)?|experiences?(?: professionnelles?)?|parcours(?: professionnel)?|emplois',
  skills:
    '(?:key |technical |core |professional )?(?:skills|competences|competencies|strengths|knowledge|abilities|expertise)|skills and tools|tools|(?:fach)?kenntnisse|fahigkeiten|kompetenzen|edv-kenntnisse|technische kenntnisse|vaardigheden|kennis|competenties|habilidades|conocimientos|aptitudes|competencias|competences(?: techniques)?|savoir-faire|connaissances',
  languages: 'languages?(?: skills)?|sprachen|sprachkenntnisse|talen(?:kennis)?|idiomas|langues',
  licences:
    "(?:driving )?licen[cs]es?(?: and certificates)?|certificates?(?: and licen[cs]es)?|certifications?|tickets|cards and tickets|fuhrerschein(?:e)?|zertifikate|scheine|nachweise|rijbewijs|rijbewijzen|certificaten|diploma's|permisos?|carnets?|certificados|permis|habilitations|certificats",
  contact:
    'contact(?: details)?|personal(?: details| data| information)?|kontakt(?:daten)?|personliche(?: daten| angaben)|persoonlijke gegevens|gegevens|datos(?: personales)?|contacto|coordonnees|etat civil|address',
  references: 'references?|referees|referenzen|referenties|referencias|references professionnelles',
  other:
    "(?:personal )?(?:profile|summary|statement)|about me|profil|uber mich|profiel|perfil|sobre mi|a propos|interests|hobbies|hobbys|interessen|interesses|aficiones|loisirs|centres d'interet|volunteering|ehrenamt|vrijwilligerswerk|projects|projekte|publications|other|sonstiges|overig|otros|divers|availability",
};

/** What a job is called, folded: to tell the role from the employer. */
const ROLE =
  /technici?an|techniker|technicien|tecnic[oa]|engineer|ingenieur|ingenier[oa]|fitter|electrician|elektriker|elektronik|electricist|electricien|elektricien|elektromonteur|monteur|mechatroni|mechani[ck]|mecanic|manager|leiter|leitung|assistant|apprentice|auszubildende|azubi|aprendiz|apprenti|leerling|officer|consultant|berater|developer|programmer|programmier|operator|supervisor|foreman|meister|chef d|jefe|encargad|trainee|intern\b|praktikant|stagiair|stage\b|specialist|planner|sales|verkauf|installat?eur|installer|instalador|service desk|adviser|advisor|teacher|lehrer|driver|fahrer|worker|hand\b|responsable|conductor|coordinat/;
const FIRM =
  /\b(?:ltd|limited|plc|llp|gmbh|ag|kg|ohg|bv|b\.v\.|nv|n\.v\.|s\.?l\.?u?|s\.?a\.?|sarl|sas|inc|co|company|group|gruppe|groep|holding)\b\.?/;
const PLACE_LABEL =
  /^(?:address|place|town|city|lives? in|residence|based in|location|wohnort|adresse|anschrift|ort|woonplaats|adres|domicilio|direccion|residencia|ciudad|domicile|lieu|ville):\s*(\S.*)$/;
const POSTCODE =
  /\b(?:[a-z]{1,2}\d[a-z\d]? ?\d[a-z]{2}|\d{4} ?[a-z]{2}\b|(?:d-|f-|e-|b-)?\d{4,5}) \p{L}[\p{L} .'-]{2,60}|(?<!\p{L})\p{L}[\p{L} .'-]{2,60},? [a-z]{1,2}\d[a-z\d]? \d[a-z]{2}\b/u;
const EMAIL = /(?<![\w.+-])[\w.+-]{1,64}@[\w-]{1,63}(?:\.[\w-]{1,63}){1,8}/;
const PHONE = /(?:\+|\b00|\b0)[\d][\d ()/.-]{6,18}\d/;
const DRIVING =
  /driving licen[cs]e|driver'?s? licen[cs]e|(?:full|clean) (?:uk )?licen[cs]e|fuhrerschein|fahrerlaubnis|rijbewijs|(?:permiso|carnet|licencia) de conducir|permis(?: de conduire)?(?: [a-e]\d?\b|$)/;
const NO_DRIVING =
  /(?:\bno\b|not hold|without|kein(?:en)?|ohne|geen|zonder|\bsin\b|no tengo|\bpas de\b|\bsans\b|provisional|noch nicht) (?:a |an |valid |full |clean |eigenen )*(?:driv|fuhrer|fahrer|rij|permi|carnet|licen)/;
const CERTIFICATE = /certificate|zertifikat|certificaat|certificado|certificat\b|\bticket\b|habilitation|staplerschein|befahigungsnachweis/;
const SPEAKS = /\b(?:i )?(?:speak|spreche|spreek|hablo|parle)\b/;
const GAP_MONTHS = 3;

interface Entry {
  /** the words it stands in */
  readonly quote: string;
  readonly period: Period;
  /** what it says beside the time, in pieces */
  readonly pieces: readonly string[];
}

/** Years of work of one kind, counted out of a CV: work that these words speak of, each whole or, with a `*`, as a beginning. */
export interface YearsIn {
  readonly id: string;
  readonly words: readonly string[];
}

/** Who somebody is, by the papers they sent: every value with the words it stands in. `now` is the day it was sent. */
export function pickCv(text: string, now: Instant, counted: readonly YearsIn[]): Readonly<Record<string, Picked>> {
  const lines = documentLines(text, SECTIONS);
  const jobs = entriesOf(lines, 'jobs', now);
  const newest = [...jobs].sort((a, b) => b.period.end - a.period.end || b.period.start - a.period.start);
  const [latest] = newest;
  return {
    ...contactOf(lines),
    job_title: latest ? picked(roleOf(latest).role, latest.quote, 0.85) : labelledRole(lines),
    employer: latest && roleOf(latest).employer !== '' ? picked(roleOf(latest).employer, latest.quote, 0.8) : nothing(),
    ...workOf(jobs, newest, now, counted),
    gaps: gapsOf([...jobs, ...entriesOf(lines, 'education', now)], jobs, now),
    education: educationOf(lines, now),
    skills: listOf(lines, 'skills'),
    languages: languagesOf(lines),
    ...licencesOf(lines),
  };
}

/** The stations of a section: each begins where a time is said, before, behind, above or below what it is the time of. */
function entriesOf(lines: readonly DocumentLine[], section: string, now: Instant): readonly Entry[] {
  const own = lines.filter((line) => line.section === section);
  const periods = own.map((line) => (line.bullet && line.text.length > 90 ? [] : periodsIn(line.even, now)));
  // Titles stand above their times when the section does not begin with a time.
  const above = own.length > 0 && periods[0]?.length === 0;
  const used = new Set<number>();
  const out: Entry[] = [];
  for (const [i, line] of own.entries()) {
    for (const period of periods[i] ?? []) {
      const beside = tidy(line.text.slice(0, period.from)) || tidy(line.text.slice(period.to));
      const near = [above ? i - 1 : i + 1, above ? i - 2 : i + 2].filter(
        (at, step) =>
          own[at] &&
          !own[at].bullet &&
          periods[at]?.length === 0 &&
          !used.has(at) &&
          own[at].text.length <= 90 &&
          (step === 0 || beside === ''),
      );
      const about = tidy(`${line.text.slice(0, period.from)} ${line.text.slice(period.to)}`);
      const isWhole = piecesOf(about).length > 1;
      const beyond = isWhole ? [] : near.flatMap((at) => (used.add(at), own[at]?.text ?? []));
      const rest = above ? beyond.reverse() : beyond;
      const pieces = [...(above ? rest : []), about, ...(above ? [] : rest)].filter((piece) => piece !== '').flatMap(piecesOf);
      if (pieces.length > 0) out.push({ quote: [...(above ? rest : []), line.text, ...(above ? [] : rest)].join(' … '), period, pieces });
    }
  }
  return out;
}

const tidy = (text: string): string =>
  text
    .replace(/\(\s*\)/g, '')
    .replace(/^[\s,;:|()–—-]+|[\s,;:|(–—-]{1,40}$/g, '')
    .replace(/\s+/g, ' ');

/** “Field technician at Larkfield Pumps, Hessle” in its parts. */
const piecesOf = (text: string): readonly string[] =>
  text
    .split(/\s(?:at|bei|bij|chez)\s|\s[|·–—-]\s|[,;]\s/)
    .map(tidy)
    .filter((piece) => piece !== '');

function roleOf(entry: Entry): { readonly role: string; readonly employer: string } {
  const [first = '', second = ''] = entry.pieces;
  const swapped = !ROLE.test(plainFold(first)) && (ROLE.test(plainFold(second)) || (FIRM.test(plainFold(first)) && second !== ''));
  return swapped ? { role: second, employer: first } : { role: first, employer: second };
}

const piecesInOrder = (entry: Entry): readonly string[] => {
  const { role, employer } = roleOf(entry);
  return [role, employer, ...entry.pieces.slice(2)].filter((piece) => piece !== '');
};

function labelledRole(lines: readonly DocumentLine[]): Picked {
  const line = lines.find((entry) => entry.section === '' && ROLE.test(entry.folded) && entry.text.length <= 60 && !EMAIL.test(entry.text));
  return line ? picked(line.text.replace(/^[^:]{2,20}:\s+/, ''), line.text, 0.6) : nothing();
}

function workOf(
  jobs: readonly Entry[],
  newest: readonly Entry[],
  now: Instant,
  counted: readonly YearsIn[],
): Readonly<Record<string, Picked>> {
  if (jobs.length === 0) return { jobs: nothing(), years: nothing() };
  const quote = jobs.map((entry) => entry.quote).join(' … ');
  const sure = jobs.every((entry) => entry.period.exact) ? 0.9 : 0.75;
  const yearsOf = (entries: readonly Entry[]): number => Math.round(monthsCovered(entries.map(untilNow(now))) / 6) / 2;
  const yearsIn = ({ words }: YearsIn): Picked => {
    const speaks = spoken(words);
    const meant = jobs.filter((entry) => speaks.test(plainFold(entry.pieces.join(' '))));
    return meant.length > 0 ? picked(yearsOf(meant), meant.map((entry) => entry.quote).join(' … '), sure) : nothing();
  };
  return {
    jobs: picked(newest.map((entry) => `${periodText(entry.period)}: ${piecesInOrder(entry).join(', ')}`).join('; '), quote, sure),
    years: picked(yearsOf(jobs), quote, sure),
    ...Object.fromEntries(counted.map((count) => [count.id, yearsIn(count)])),
  };
}

const escaped = (word: string): string => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** Finds any of the words in folded text. */
function spoken(words: readonly string[]): RegExp {
  const forms = words.map((word) => {
    const folded = plainFold(word.replace(/\*$/, ''));
    return word.endsWith('*') ? `${escaped(folded)}\\p{L}*` : escaped(folded);
  });
  return forms.length === 0 ? /(?!)/ : new RegExp(`(?<![\\p{L}\\p{N}])(?:${forms.join('|')})(?![\\p{L}\\p{N}])`, 'u');
}

/** Nobody has worked in the future yet. */
const untilNow = (now: Instant): ((entry: Entry) => Pick<Period, 'start' | 'end'>) => {
  const date = new Date(now);
  const month = date.getUTCFullYear() * 12 + date.getUTCMonth() + 1;
  return ({ period }) => ({ start: Math.min(period.start, month), end: Math.min(period.end, month) });
};

/** Months that neither work nor training covers. */
function gapsOf(all: readonly Entry[], jobs: readonly Entry[], now: Instant): Picked {
  if (jobs.length === 0) return nothing();
  const spans = [...all].sort((a, b) => a.period.start - b.period.start);
  const gaps: string[] = [];
  let last: Entry | undefined;
  const date = new Date(now);
  const today = date.getUTCFullYear() * 12 + date.getUTCMonth() + 1;
  // Where only a year is said, it may have been the whole of it.
  const put = (before: Period, end: number): void => {
    const start = before.exact || before.ongoing ? before.end : before.end + 12;
    if (end - start <= GAP_MONTHS) return;
    const least = before.exact ? '' : 'at least ';
    gaps.push(`${monthText(start, true)} – ${end >= today ? 'now' : monthText(end - 1, true)} (${least}${end - start} months)`);
  };
  for (const span of spans) {
    if (last) put(last.period, span.period.start);
    if (!last || span.period.end > last.period.end) last = span;
  }
  if (last && !last.period.ongoing) put(last.period, today);
  return picked(gaps.length === 0 ? 'none' : gaps.join('; '), jobs.map((entry) => entry.quote).join(' … '), 0.75);
}

function educationOf(lines: readonly DocumentLine[], now: Instant): Picked {
  const entries = entriesOf(lines, 'education', now);
  const own = lines.filter((line) => line.section === 'education');
  if (own.length === 0) return nothing();
  if (entries.length > 0)
    return picked(
      entries.map((entry) => `${periodText(entry.period)}: ${entry.pieces.join(', ')}`).join('; '),
      entries.map((entry) => entry.quote).join(' … '),
      0.85,
    );
  const short = own.filter((line) => line.text.length <= 120).slice(0, 6);
  return short.length > 0 ? picked(short.map((line) => line.text).join('; '), short.map((line) => line.text).join(' … '), 0.7) : nothing();
}

function listOf(lines: readonly DocumentLine[], section: string): Picked {
  const own = lines.filter((line) => line.section === section);
  const things = [...new Set(own.flatMap((line) => listed(line.text.replace(/^[^:]{2,30}:\s+/, ''))))].slice(0, 30);
  return things.length > 0 ? picked(things.join(', '), own.map((line) => line.text).join(' … '), 0.85) : nothing();
}

function languagesOf(lines: readonly DocumentLine[]): Picked {
  const said = lines.flatMap((line) =>
    line.section === 'languages' ? [line.text] : sentencesOf(line.text).filter((sentence) => SPEAKS.test(plainFold(sentence))),
  );
  const known = new Map<string, string | undefined>();
  const words: string[] = [];
  for (const text of said) {
    const before = known.size;
    for (const piece of listed(text.replace(/ (?:and|und|en|y|et) /g, ', ')).flatMap((entry) => entry.split(/\s\/\s/))) {
      const name = languageOf(plainFold(piece));
      if (name !== undefined && !NOT.test(plainFold(piece)) && known.get(name) === undefined) known.set(name, levelOf(plainFold(piece)));
    }
    if (known.size > before) words.push(text);
  }
  const all = [...known].map(([name, level]) => (level === undefined ? name : `${name} (${level})`));
  return all.length === 0 ? nothing() : picked(all.join(', '), words.join(' … '), 0.9);
}

function licencesOf(lines: readonly DocumentLine[]): Pick<Record<DocumentPart<'cv'>, Picked>, 'licences' | 'driving'> {
  const denied = lines.find((line) => NO_DRIVING.test(line.folded));
  const said = lines.find(
    (line) =>
      line !== denied &&
      (DRIVING.test(line.folded) ||
        (line.section === 'licences' &&
          /^(?:klasse |class |cat(?:egory)?\.? |clase )?[a-e]{1,2}\d?(?:[ ,+]+[a-e]{1,2}\d?)*$/.test(line.folded))),
  );
  const own = lines.filter(
    (line) =>
      line !== denied &&
      (line.section === 'licences' ||
        line === said ||
        (line.section !== 'jobs' && line.text.length <= 60 && CERTIFICATE.test(line.folded))),
  );
  const things = [...new Set(own.flatMap((line) => listed(line.text)))].slice(0, 20);
  return {
    licences: things.length > 0 ? picked(things.join(', '), own.map((line) => line.text).join(' … '), 0.85) : nothing(),
    driving: said ? picked(true, said.text, 0.9) : denied ? picked(false, denied.text, 0.9) : nothing(),
  };
}

function contactOf(lines: readonly DocumentLine[]): Pick<Record<DocumentPart<'cv'>, Picked>, 'name' | 'email' | 'phone' | 'place'> {
  const find = (pattern: RegExp, among = lines): Picked => {
    for (const line of among) {
      const found = pattern.exec(line.text);
      if (found) return picked(tidy(found[0]), line.text, 0.95);
    }
    return nothing();
  };
  const mine = lines.filter((line) => line.section !== 'references');
  return {
    name: nameOf(mine),
    email: find(EMAIL, mine),
    phone: find(
      PHONE,
      mine.filter((line) => line.section !== 'jobs'),
    ),
    place: placeOf(mine),
  };
}

const NAME_LABEL = /^(?:full )?(?:name|naam|nombre|nom)(?: and surname| y apellidos)?:\s+(.{3,60})$/i;
const NAME_WORDS =
  /^(?:\p{Lu}[\p{L}'’.-]*|de|van|der|den|von|zu|la|del|di|da|el|ten|ter|y)(?: (?:\p{Lu}[\p{L}'’.-]*|de|van|der|den|von|zu|la|del|di|da|el|ten|ter|y)){1,4}$/u;
const NO_NAME = /curriculum|vitae|lebenslauf|resume|cv\b|application|bewerbung|sollicitatie|solicitud|candidature|page \d/;

function nameOf(lines: readonly DocumentLine[]): Picked {
  for (const line of lines.slice(0, 15)) {
    const label = NAME_LABEL.exec(line.text);
    if (label) return picked((label[1] ?? '').trim(), line.text, 0.95);
  }
  for (const line of lines.slice(0, 6)) {
    const bare =
      line.text.replace(/^(?:curriculum vitae|cv|lebenslauf|résumé)(?: of| von| van| de)?[\s:–-]*/i, '').split(/\s[|·–—]\s/)[0] ?? '';
    if (NAME_WORDS.test(bare) && !NO_NAME.test(plainFold(bare)) && !ROLE.test(plainFold(bare))) return picked(bare, line.text, 0.8);
  }
  return nothing();
}

function placeOf(lines: readonly DocumentLine[]): Picked {
  for (const line of lines) {
    const label = PLACE_LABEL.exec(line.folded);
    if (label) return picked(line.text.slice(line.text.indexOf(':') + 1).trim(), line.text, 0.9);
  }
  for (const line of lines.filter((entry) => entry.section === '' || entry.section === 'contact').slice(0, 12)) {
    for (const piece of line.text.split(/\s[|·•]\s|\s{2}/))
      if (POSTCODE.test(plainFold(piece)) && !EMAIL.test(piece)) return picked(tidy(piece.replace(PHONE, '')), line.text, 0.8);
  }
  return nothing();
}
