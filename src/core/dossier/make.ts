import { clip, type Instant } from '../base';
import { chooseCurrent, competing, type Fact, type SourceKind } from '../facts';
import type { FeelScope } from '../feel';
import { printValue, type FactValue, type Field, type Point } from '../fields';
import type { Block } from '../formats';
import { whatTheyDo, type Asked, type Passage } from '../reader';
import { candidateSections, type Candidate } from './candidate';
import type { Dossier, DossierLine, DossierSection } from './dossier';
import { line, ofFact } from './lines';
import { filled, holds } from './says';

/** A document as research found it: a page of the site, a piece of news, a profile, a job posted. */
export interface DossierDocument {
  readonly source: SourceKind;
  readonly url: string;
  readonly title: string;
  readonly published: Instant | null;
  readonly blocks: readonly Block[];
}

export interface DossierInput {
  /** the company's; null for somebody whose company is not known */
  readonly name: string | null;
  /** set when the dossier is about a person: who they are at that company */
  readonly person: { readonly name: string; readonly role: string | null } | null;
  readonly place: string | null;
  readonly status: string | null;
  /** fields in the order in which they are to be read, with all facts of each */
  readonly fields: readonly { readonly field: Field; readonly facts: readonly Fact[] }[];
  /** questions that were asked, by the field they fill */
  readonly asked: readonly { readonly id: string; readonly wording: string; readonly unit: string | null }[];
  /** what this business asks about: sentences that speak of it are told first */
  readonly about: readonly Asked[];
  readonly documents: readonly DossierDocument[];
  /** set for somebody who applies, or whose papers were read */
  readonly candidate: Candidate | null;
  readonly doNotContact: boolean;
  readonly now: Instant;
}

const DAY = 86_400_000;
const RECENT_DAYS = 365;
const NEWS_DAYS = 3 * 365;
/** Jobs posted that are worth a word. */
const JOBS = 3;
const DOUBTFUL_BELOW = 0.6;
const BAD_NEWS =
  /\bfire\b|\bsold\b|sells|closes|closed|insolv|bankrupt|lay off|redundan|gro(?:ß|ss)brand|feuer|verkauft|schliesst|schließt|faillissement|verkoopt|sluit|incendio|vende|cierra|incendie|vend\b|ferme/i;
class Known {
  readonly scope: FeelScope;

  constructor(private readonly input: DossierInput) {
    const values: readonly (readonly [string, FactValue])[] = input.fields.map(({ field, facts }) => [
      field.key,
      chooseCurrent(facts)?.value ?? null,
    ]);
    this.scope = { ...Object.fromEntries(values), year: new Date(input.now).getUTCFullYear() };
  }

  fact(key: string): Fact | undefined {
    return chooseCurrent(this.all(key));
  }
  others(key: string): readonly Fact[] {
    const shown = new Set([String(this.fact(key)?.value)]);
    return competing(this.all(key)).filter((fact) => !shown.has(String(fact.value)) && shown.add(String(fact.value)));
  }
  field(key: string): Field | undefined {
    return this.input.fields.find((entry) => entry.field.key === key)?.field;
  }
  private all(key: string): readonly Fact[] {
    return this.input.fields.find((entry) => entry.field.key === key)?.facts ?? [];
  }
}

/** The dossier of a record from its facts and what research read. */
export function makeDossier(input: DossierInput): Dossier {
  const known = new Known(input);
  const news = newsOf(input);
  const candidate = input.candidate && candidateSections(input.candidate);
  const sections: readonly DossierSection[] = [
    { id: 'short', title: 'In short', lines: [...(candidate?.short ?? []), ...inShort(known, input)] },
    ...(candidate?.more ?? []),
    {
      id: 'talk',
      title: 'To talk about',
      lines: [
        ...talkAbout(known, input),
        ...news.filter((entry) => recent(entry.date, input.now)).map((entry) => ({ ...entry, label: 'in the news' })),
      ],
    },
    { id: 'watch', title: 'To watch', lines: [...(candidate?.watch ?? []), ...toWatch(known, input)] },
    { id: 'do', title: 'What they say of themselves', lines: ownWords(input) },
    { id: 'asked', title: 'What we asked', lines: answers(input, known) },
    { id: 'news', title: 'News', lines: news },
    { id: 'people', title: 'People', lines: peopleOf(input) },
    {
      id: 'unknown',
      title: 'What we do not know',
      lines: [...(candidate?.unknown ?? []), ...(input.name === null ? [] : unknown(input, known))],
    },
  ];
  return {
    title: [input.person?.name, input.name].filter(Boolean).join(', '),
    under: [input.person?.role, input.place, input.status].filter(Boolean).join(' · '),
    madeAt: input.now,
    sections: sections.filter((section) => section.lines.length > 0),
  };
}

const ALWAYS_SHORT: ReadonlySet<string> = new Set(['employees', 'founded']);

/** What the workspace's own fields say at the head of a dossier, and what is worth knowing of any company. */
function inShort(known: Known, input: DossierInput): readonly DossierLine[] {
  const leading = input.fields.filter(({ field }) => field.dossier?.leads !== undefined);
  const always = input.fields.filter(({ field }) => field.isStandard && ALWAYS_SHORT.has(field.key));
  return [...leading, ...always].flatMap(({ field }) => {
    const fact = known.fact(field.key);
    if (!fact) return [];
    const says = field.dossier?.leads;
    const text = (says === undefined ? undefined : filled(says, known.scope)) ?? printValue(fact.value, field.unit);
    return [ofFact(fact, field.label, text, known.others(field.key), field.unit)];
  });
}

/** What the fields have to say when their conditions hold, each resting on the field's own fact. */
function points(known: Known, input: DossierInput, part: 'talk' | 'watch'): readonly DossierLine[] {
  return input.fields.flatMap(({ field }) =>
    (field.dossier?.[part] ?? []).flatMap((point: Point) => {
      const fact = known.fact(field.key);
      const text = fact && holds(point.when, known.scope) ? filled(point.says, known.scope) : undefined;
      return fact && text !== undefined ? [ofFact(fact, point.label, text, known.others(field.key))] : [];
    }),
  );
}

function ownWords(input: DossierInput): readonly DossierLine[] {
  const site: readonly Passage[] = input.documents.filter((document) => document.source === 'site');
  return whatTheyDo(site, input.about).map(({ text, url }) => line({ text, url, source: 'site' }));
}

function answers(input: DossierInput, known: Known): readonly DossierLine[] {
  return input.asked.flatMap(({ id, wording, unit }) => {
    const fact = known.fact(id);
    return fact ? [ofFact(fact, wording, printValue(fact.value, unit ?? undefined), known.others(id), unit ?? undefined)] : [];
  });
}

const recent = (date: Instant | null, now: Instant): boolean => date !== null && now - date < RECENT_DAYS * DAY;

function newsOf(input: DossierInput): readonly DossierLine[] {
  return input.documents
    .filter((document) => document.source === 'news' && (document.published === null || input.now - document.published < NEWS_DAYS * DAY))
    .sort((a, b) => (b.published ?? 0) - (a.published ?? 0))
    .map((document) =>
      line({ text: document.title, quote: clip(bodyOf(document), 220), url: document.url, source: 'news', date: document.published }),
    );
}

const bodyOf = (document: DossierDocument): string =>
  document.blocks
    .map((block) => (block.kind === 'row' ? `${block.text} ·` : block.text))
    .join(' ')
    .replace(/ ·$/, '');

function peopleOf(input: DossierInput): readonly DossierLine[] {
  return input.documents
    .filter((document) => document.source === 'directory')
    .map((document) => {
      const [role = '', ...more] = document.blocks.map((block) => block.text);
      return line({
        label: document.title,
        text: role,
        quote: more.length === 0 ? null : clip(more.join(' · '), 220),
        url: document.url,
        source: 'directory',
        date: document.published,
      });
    });
}

/** What a conversation can begin with: each from one fact or document. */
function talkAbout(known: Known, input: DossierInput): readonly DossierLine[] {
  const out: DossierLine[] = [...points(known, input, 'talk')];
  const posted = input.documents.filter((document) => document.source === 'jobs' && recent(document.published, input.now)).slice(0, JOBS);
  for (const document of input.documents) {
    if (posted.includes(document))
      out.push(
        line({
          label: 'looking for',
          text: document.title,
          quote: clip(bodyOf(document), 220),
          url: document.url,
          source: 'jobs',
          date: document.published,
        }),
      );
    if (document.source === 'directory' && (input.person === null || document.title === input.person.name))
      for (const block of document.blocks.slice(1))
        if (block.kind !== 'row')
          out.push(line({ label: document.title, text: block.text, url: document.url, source: 'directory', date: document.published }));
  }
  return out;
}

function toWatch(known: Known, input: DossierInput): readonly DossierLine[] {
  const out: DossierLine[] = [];
  if (input.doNotContact) out.push(line({ label: 'do not contact', text: 'They have asked not to be written to.' }));
  out.push(...points(known, input, 'watch'));
  for (const { field, facts } of input.fields) {
    const best = chooseCurrent(facts);
    const others = known.others(field.key);
    if (best && others.length > 0)
      out.push(ofFact(best, field.label, `Sources disagree: ${printValue(best.value, field.unit)} was taken.`, others, field.unit));
    else if (best && best.confidence < DOUBTFUL_BELOW && best.source !== 'crm')
      out.push(ofFact(best, field.label, `Not sure: ${printValue(best.value, field.unit)}.`, [], field.unit));
  }
  for (const document of input.documents) {
    if (document.source === 'news' && BAD_NEWS.test(document.title) && recent(document.published, input.now))
      out.push(
        line({
          label: 'in the news',
          text: document.title,
          quote: clip(bodyOf(document), 220),
          url: document.url,
          source: 'news',
          date: document.published,
        }),
      );
    const status = document.source === 'register' ? document.blocks.find((block) => /^status: /i.test(block.text)) : undefined;
    if (status && !/active/i.test(status.text))
      out.push(line({ label: 'register', text: status.text, url: document.url, source: 'register' }));
  }
  return out;
}

function unknown(input: DossierInput, known: Known): readonly DossierLine[] {
  const open = input.asked.filter((question) => known.fact(question.id) === undefined).map((question) => line({ text: question.wording }));
  return known.fact('website') === undefined ? [...open, line({ text: 'Which is their web site?' })] : open;
}
