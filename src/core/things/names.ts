import { numberedLines, parseFlow, quote, type Named, type Step } from '../flow/syntax';
import type { ThingKind } from './thing';

/** What a line names of a kind. */
function nameOf(step: Step, kind: ThingKind): Named | undefined {
  if (kind === 'scorecard' && step.verb === 'score') return step.scorecard;
  if (kind === 'template' && step.verb === 'write') return step.template;
  if (kind === 'plan' && step.verb === 'follow up') return step.plan;
  return undefined;
}

const named = (text: string, kind: ThingKind): readonly Named[] =>
  numberedLines(parseFlow(text).tree.lines).flatMap(({ line }) => nameOf(line.step, kind) ?? []);

/** The names of a kind that a flow speaks of, each once. */
export const namedIn = (text: string, kind: ThingKind): readonly string[] => [...new Set(named(text, kind).map((name) => name.text))];

/** A flow with a thing's new name; the same text where it does not speak of it. */
export function renamedIn(text: string, kind: ThingKind, from: string, to: string): string {
  let out = text;
  for (const name of [...named(text, kind)].reverse())
    if (name.text === from) out = `${out.slice(0, name.from)}${quote(to)}${out.slice(name.to)}`;
  return out;
}
