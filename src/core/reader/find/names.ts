import { fold } from '../../base';
import { rowOf, type Said } from '../said';
import { peopleIn, productsIn, type Name } from '../skills/names';
import { DROPPED, ENDED } from '../skills/standing';
import { wordsBefore } from '../tokens';
import type { Hit } from '../cues';
import type { Candidate } from './candidate';

function placed(said: Said, name: Name): { readonly from: number; readonly to: number } {
  const from = wordsBefore(said.text, name.from);
  return { from, to: from + wordsBefore(name.text, name.text.length) };
}

/** What stands between a name and the nearest word asked for tells whether the two belong together. */
function bound(said: Said, at: { readonly from: number; readonly to: number }, hits: readonly Hit[]): Record<string, number> {
  let apposed = 0;
  let links = 0;
  let deputy = 0;
  for (const hit of hits) {
    if (hit.cue.role === 'not' || hit.cue.role === 'against') continue;
    const [left, right] = hit.to <= at.from ? [hit.to, at.from] : hit.from >= at.to ? [at.to, hit.from] : [0, 0];
    if (right <= left && hit.to > at.from && hit.from < at.to) continue;
    if (DEPUTY.test(said.folded.slice(0, said.tokens[hit.from]?.from ?? 0))) deputy = 1;
    const between = said.folded.slice(said.tokens[left - 1]?.to ?? 0, said.tokens[right]?.from ?? said.folded.length);
    if (
      /^\s?[,:(–—-]?\s?(?:(?:our|the|unsere?|onze|de|nuestr[oa]|la|el|notre|le|die|der|is our|is the|is|ist|ist unsere?|is onze|es|est)\s)?$/.test(
        between,
      )
    )
      apposed = Math.max(apposed, hit.strength);
    if (/\b(?:is|are|as|by|led|ist|sind|leitet|unter|door|is|por|lleva|dirige|par|dirigee?|est)\b/.test(between) && right - left <= 4)
      links = 1;
  }
  return { apposed, links, deputy };
}

/** Second in a post, and not the one asked for: “assistant | head of studies”. */
const DEPUTY =
  /\b(?:assistant|assistants|deputy|vice|associate|second|stellvertretende[nrs]?|stellv\.?|assistenz|assistent(?:in)?(?: der)?|adjunct|plaatsvervangend|assistent|sub|vice|adjunt[oa](?: al| a la| de)?|asistente(?: de)?|adjoint(?:e)?(?: (?:a la|du|de la))?|sous)[ -]?$/;

const LEAVING_BEFORE =
  /\b(?:from|after|replac\w+|succe\w+|follow\w+|farewell to|goodbye(?: to)?|thank\w*|hand\w* over from|von|nach|folgt auf|nachfolge\w* von|abschied von|verabschied\w+|van|volgt|opvolger van|afscheid van|de|sustituye a|releva a|sucede a|remplace|succede a)\s*$/;
const LEAVING_AFTER =
  /^\W*(?:\w+ ){0,3}?(?:retire\w*|left|leaves|leaving|has gone|goes back|steps down|stepped down|handed|hands|hangs up|gave up|moves? (?:on|to)|until|bis|verlass\w*|verlasst|geht in|ging|ubergibt|ubergab|neemt (?:\w+ ){0,3}afscheid|vertrekt|stopt|se jubila|deja|dejo|se retira|part|quitte|prend sa retraite|a quitte)\b/;
const ARRIVING =
  /\b(?:takes over|took over|has taken over|succeeds|new|now|since|joins|joined|appointed|welcome|ubernimmt|ubernahm|neue[rn]?|seit|willkommen|neemt (?:\w+ ){0,2}over|nieuwe|sinds|welkom|asume|nuev[oa]|desde|bienvenid[oa]|prend la|nouve\w+|depuis)\b/;

const FORMER_NAME =
  /\b(?:previous|old|former|earlier|first|alte[nrsm]?|vorige[nrs]?|fruhere[nrs]?|ehemalige[nrs]?|oude|eerdere|antigu[oa]|anterior|viej[oa]|ancien(?:ne)?|precedent|vieux|instead of|statt|anstelle|in plaats van|en lugar de|au lieu d[eu])\b(?:\W+\w+){0,3}\W*$/;
const FROM = /\b(?:from|von|vom|van|de|desde)(?: (?:a|an|the|our|einem|einer|een|un|una|une|le|la))?(?: [\p{L}-]+){0,2} $/u;
const TO = /^(?: [\p{L}-]{1,30}){0,3}? (?:to|auf|zu|zum|naar|a|al|para|vers|au)\b/u;
const REPLACED = /\b(?:replac\w+|ersetz\w*|abgelost|vervang\w*|sustitu\w+|reemplaz\w+|rempla\w+)\b/;
const BY = /^\W{0,3}(?:by|durch|door|por|par)\b/;
const STILL = /\b(?:still|noch|nog|todavia|aun|encore|toujours)\b/;

/** Whether a thing is said to have been given up for another: “our old X”, “from X to Y”. */
function givenUp(said: Said, at: { readonly from: number; readonly to: number }): number {
  const before = said.folded.slice(Math.max(0, (said.tokens[at.from]?.from ?? 0) - 45), said.tokens[at.from]?.from ?? 0);
  const after = said.folded.slice(said.tokens[at.to - 1]?.to ?? 0, (said.tokens[at.to - 1]?.to ?? 0) + 40);
  return (FORMER_NAME.test(before) && !STILL.test(before)) ||
    (FROM.test(before) && TO.test(after)) ||
    (REPLACED.test(said.folded) && BY.test(after)) ||
    ENDED.test(after) ||
    DROPPED.test(after)
    ? 1
    : 0;
}

/** Whether somebody is said to leave a post or to take it up: “X takes over from Y”. */
function moves(said: Said, at: { readonly from: number; readonly to: number }): Record<string, number> {
  const before = said.folded.slice(Math.max(0, (said.tokens[at.from]?.from ?? 0) - 40), said.tokens[at.from]?.from ?? 0);
  const after = said.folded.slice(said.tokens[at.to - 1]?.to ?? 0, (said.tokens[at.to - 1]?.to ?? 0) + 60);
  const handsOver =
    /\b(?:takes? over|took over|taken over|succe\w+|replac\w+|follow\w+|hand\w* (?:\w+ ){0,3}(?:over|to)|ubernimmt|ubernahm|folgt|neemt|opvolg\w*|sustituye|releva|remplace)\b/.test(
      said.folded,
    );
  return {
    leaving: LEAVING_AFTER.test(after) || (handsOver && LEAVING_BEFORE.test(before)) ? 1 : 0,
    arriving: ARRIVING.test(`${before.slice(-24)} ${after.slice(0, 40)}`) ? 1 : 0,
  };
}

/** “Abigail and | Ruth Penhallow”: two of one family. */
const PAIR = /\p{L} (?:and|&|und|en|y|et) $/u;

export function peopleNamed(said: Said, hits: readonly Hit[], taken: ReadonlySet<string>): readonly Candidate[] {
  const people = peopleIn(said.text, taken);
  if (people.length === 0) return namedAbove(said, hits, taken);
  return people.map((name) => {
    const at = placed(said, name);
    return {
      value: name.text,
      said,
      ...at,
      marks: {
        ...bound(said, at, hits),
        ...moves(said, at),
        alone: people.length === 1 ? 1 : 0,
        pair: PAIR.test(said.text.slice(0, name.from)) ? 1 : 0,
      },
    };
  });
}

/** `lower`: words of the site that also stand in small letters: they name no product. */
export function productsNamed(
  said: Said,
  hits: readonly Hit[],
  taken: ReadonlySet<string>,
  lower: ReadonlySet<string>,
): readonly Candidate[] {
  return productsIn(said.text, taken).flatMap((name): readonly Candidate[] => {
    const whole = placed(said, name);
    // “Booking system Orrin 2”: what is asked for stands before the name and is no part of it.
    let { from } = whole;
    while (from < whole.to && hits.some((hit) => hit.cue.role !== 'for' && hit.inside !== true && hit.from <= from && hit.to > from))
      from += 1;
    if (from === whole.to) return [];
    const words = name.text.split(/\s+/);
    const value = from === whole.from ? name.text : words.slice(Math.min(words.length - 1, from - whole.from)).join(' ');
    const at = { from, to: whole.to };
    return [
      {
        value,
        said,
        ...at,
        marks: {
          ...bound(said, at, hits),
          leaving: givenUp(said, at),
          // Every noun has a capital there.
          noun: said.language === 'de' && words.length === 1 && !name.led ? 1 : 0,
          model: name.model ? 1 : 0,
          led: name.led || from > whole.from ? 1 : 0,
          opens: name.opens && from === whole.from && !rowOf(said) ? 1 : 0,
          // The first word of a sentence has its capital from there.
          loneOpening: name.opens && from === whole.from && words.length === 1 && !rowOf(said) && !/\d/.test(value) ? 1 : 0,
          ordinary: words.filter((word) => said.ordinary.has(fold(word))).length / words.length,
          // “Leute”, “Vents”: one word that a dictionary knows, without a number of type.
          plain: words.length === 1 && said.ordinary.has(fold(value)) ? 1 : 0,
          common: fold(value)
            .split(' ')
            .every((word) => lower.has(word))
            ? 1
            : 0,
        },
      },
    ];
  });
}

/** Somebody whose name stands by itself over what they do: a card of a team page. */
function namedAbove(said: Said, hits: readonly Hit[], taken: ReadonlySet<string>): readonly Candidate[] {
  const [hit] = hits.filter(({ cue }) => cue.role !== 'not' && cue.role !== 'against');
  if (!hit || said.kind === 'heading') return [];
  const alone = (text: string): Name | undefined => {
    const found = peopleIn(text, taken);
    return found.length === 1 && found[0] && text.replace(/[.,:]\s*$/, '').length - found[0].text.length <= TITLE_ROOM
      ? found[0]
      : undefined;
  };
  const before = said.before && said.before.kind !== 'row' ? alone(said.before.text) : undefined;
  // A heading that begins with the firm's own name names the firm.
  const above = alone(said.head);
  const name = before ?? (above && taken.has(fold(above.text.split(/\s/)[0] ?? '')) ? undefined : above);
  if (!name) return [];
  const deputy = DEPUTY.test(said.folded.slice(0, said.tokens[hit.from]?.from ?? 0)) ? 1 : 0;
  return [{ value: name.text, said, from: hit.from, to: hit.to, marks: { above: 1, opens: hit.from <= 1 ? 1 : 0, deputy, alone: 1 } }];
}
/** “Dr”, “Frau”: so much may stand beside a name that stands by itself. */
const TITLE_ROOM = 8;
