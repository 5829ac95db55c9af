/** Who said what, in which order: transcripts as text, WebVTT (W3C) or SubRip. */
import { sentencesOf } from '../../sentences';
import { speaksToMachines } from '../../skills/standing';
import { evenFold, plainFold } from '../lines';

export interface Said {
  readonly text: string;
  readonly folded: string;
  readonly even: string;
}
export interface Turn {
  readonly speaker: string;
  readonly ours: boolean;
  readonly text: string;
  readonly sentences: readonly Said[];
}
export interface Talk {
  readonly turns: readonly Turn[];
  /** what stands above the first turn */
  readonly head: readonly string[];
  /** who the labels stand for, when the head says it: their name, their firm */
  readonly people: Readonly<Record<string, string>>;
}

const TIMES = /^(?:\d{1,2}:)?\d{1,2}:\d{2}[.,]\d{1,3}\s*-->\s*(?:\d{1,2}:)?\d{1,2}:\d{2}[.,]\d{1,3}.*$/;
const STAMP = /^[[(]?(?:\d{1,2}:)?\d{1,2}:\d{2}(?:[.,]\d{1,3})?[\])]?\s*[-–—]?\s*/;
const VOICE = /^<v(?:\.[\w.]+)?\s+([^>]{1,60})>/;
const SPEAKER = /^(\p{Lu}[\p{L}\p{M}'’. -]{0,40}?|\p{Lu}\d?|(?:speaker|sprecher|spreker|locuteur|hablante) ?[\w]{1,3})\s?:\s+(\S.*)$/iu;
const ALONE = /^(\p{Lu}[\p{L}'’.-]*(?: [\p{L}'’.-]+){0,4})(?: ?[[(]?(?:\d{1,2}:)?\d{1,2}:\d{2}[\])]?)?:?$/u;

export function turnsOf(text: string, ours: readonly string[] = []): Talk {
  const lines = text.split(/\r?\n/).map((line) => line.trim());
  const raw: { speaker: string; text: string }[] = [];
  const head: string[] = [];
  const names = labelsOf(lines);
  for (const [i, line] of lines.entries()) {
    if (line === '' || /^WEBVTT\b/.test(line) || TIMES.test(line) || /^(?:NOTE|STYLE|REGION)\b/.test(line)) continue;
    if (/^\d{1,5}$/.test(line) && TIMES.test(lines[i + 1] ?? '')) continue;
    const bare = line.replace(STAMP, '');
    const voice = VOICE.exec(bare);
    const said = voice ? [voice[1] ?? '', bare.replace(VOICE, '')] : labelled(bare, names);
    const alone = ALONE.exec(bare);
    if (said) {
      const last = raw.at(-1);
      const [speaker = '', words = ''] = said;
      // Subtitles cut one turn in pieces.
      if (voice && last?.speaker === speaker) last.text += ` ${plainTags(words)}`;
      else raw.push({ speaker, text: plainTags(words) });
    } else if (alone && names.has(plainFold(alone[1] ?? '')) && lines[i + 1] !== '') raw.push({ speaker: alone[1] ?? '', text: '' });
    else if (raw.length > 0) {
      const last = raw.at(-1);
      if (last) last.text += ` ${plainTags(bare)}`;
    } else head.push(line);
  }
  const people = peopleIn(head);
  const isOurs = whoIsOurs(raw, people, ours);
  return {
    head,
    people,
    turns: raw
      .filter((turn) => turn.text.trim() !== '')
      .map(({ speaker, text: said }) => ({ speaker, ours: isOurs(speaker), text: said.trim(), sentences: sentencesIn(said) })),
  };
}

const plainTags = (text: string): string => text.replace(/<[^>]{0,60}>/g, '').trim();

export const sentencesIn = (text: string): readonly Said[] =>
  sentencesOf(text)
    .map((said) => ({ text: said, folded: plainFold(said), even: evenFold(said) }))
    // What is said to machines is nobody's word.
    .filter((said) => !speaksToMachines(said.folded));

/** Labels that come again and again are speakers; others are words before a colon. */
function labelsOf(lines: readonly string[]): ReadonlySet<string> {
  const counts = new Map<string, number>();
  for (const line of lines) {
    const bare = line.replace(STAMP, '');
    const label = SPEAKER.exec(bare)?.[1] ?? ALONE.exec(bare)?.[1];
    if (label !== undefined) counts.set(plainFold(label), (counts.get(plainFold(label)) ?? 0) + 1);
  }
  return new Set([...counts].filter(([, count]) => count > 1).map(([label]) => label));
}

function labelled(line: string, names: ReadonlySet<string>): readonly [string, string] | undefined {
  const found = SPEAKER.exec(line);
  return found && names.has(plainFold(found[1] ?? '')) ? [found[1] ?? '', found[2] ?? ''] : undefined;
}

/** “Speaker A: Jonas Feld (Fennmark)”, “S = sales (Hamish Tarbet, Fennmark)” */
function peopleIn(head: readonly string[]): Readonly<Record<string, string>> {
  const out: Record<string, string> = {};
  for (const line of head)
    for (const piece of line.split(/[|;]|\s\/\s/)) {
      const found = /^\s*(?:(?:speaker|sprecher|spreker|hablante|locuteur)\s+)?(\p{L}[\p{L}. ]{0,30}?)\s*[=:]\s*(\S.*)$/iu.exec(piece);
      if (found) out[plainFold(found[1] ?? '')] = (found[2] ?? '').trim();
    }
  return out;
}

const SELLS =
  /\b(?:sales|vertrieb|verkauf|innendienst|aussendienst|beratung|verkoop|advies|ventas|comercial|commercial|vente|consultant|advisor|account|us|wir|wij|nous|nosotros)\b/;

/** Ours is who is said to be, else whose firm is named with the speaker, else who asks the most. */
function whoIsOurs(
  raw: readonly { readonly speaker: string; readonly text: string }[],
  people: Readonly<Record<string, string>>,
  ours: readonly string[],
): (speaker: string) => boolean {
  const speakers = [...new Set(raw.map((turn) => turn.speaker))];
  const named = (speaker: string): string =>
    plainFold(
      `${speaker} ${people[plainFold(speaker)] ?? ''} ${Object.entries(people)
        .filter(([, who]) => plainFold(who).includes(plainFold(speaker)))
        .flat()
        .join(' ')}`,
    );
  const known = speakers.filter((speaker) => ours.some((name) => name.length > 2 && named(speaker).includes(plainFold(name))));
  if (known.length > 0 && known.length < speakers.length) return (speaker) => known.includes(speaker);
  const sellers = speakers.filter((speaker) => SELLS.test(plainFold(people[plainFold(speaker)] ?? '')));
  if (sellers.length > 0 && sellers.length < speakers.length) return (speaker) => sellers.includes(speaker);
  const asks = (speaker: string): number => {
    const turns = raw.filter((turn) => turn.speaker === speaker);
    return turns.filter((turn) => /\?\s*$/.test(turn.text)).length / Math.max(1, turns.length);
  };
  const most = [...speakers].sort((a, b) => asks(b) - asks(a))[0];
  return (speaker) => speaker === most;
}
