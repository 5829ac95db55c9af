import { fold, plural } from '../base';

export type StagesReading = { readonly ok: true; readonly stages: readonly string[] } | { readonly ok: false; readonly why: string };

const MOST = 30;
const LONGEST = 60;

/** The stages of a deal, in their order: with arrows, commas, or one a line. */
export function readStages(text: string): StagesReading {
  const stages = text
    .split(/→|->|>|[,;\n]/)
    .map((stage) => stage.replace(/^\s*(?:or it is|or)\s+/i, '').trim())
    .filter((stage) => stage !== '');
  if (stages.length < 2) return { ok: false, why: 'a deal goes through two stages at least: Asked → Quoted → Won' };
  if (stages.length > MOST) return { ok: false, why: `${plural(stages.length, 'stage')}: ${MOST} at most` };
  const long = stages.find((stage) => stage.length > LONGEST);
  if (long !== undefined) return { ok: false, why: `“${long.slice(0, 20)}…” is longer than ${LONGEST} letters` };
  const twice = stages.find((stage, i) => stages.some((other, j) => j < i && fold(other) === fold(stage)));
  return twice === undefined ? { ok: true, stages } : { ok: false, why: `“${twice}” stands there twice` };
}
