import { sayLine } from '../flow/say';
import { numberedLines, parseFlow, quote, type Named } from '../flow/syntax';
import type { ThingKind } from './thing';

/** What lines name of a kind, where they stand: every such name is a part of a sentence that can be changed in place. */
const named = (text: string, kind: ThingKind): readonly Named[] =>
  numberedLines(parseFlow(text).tree.lines).flatMap(({ line }) =>
    sayLine(line).flatMap(({ edit }) => (edit?.quoted && edit.slot === kind ? [{ from: edit.from, to: edit.to, text: edit.source }] : [])),
  );

/** The names of a kind that a flow speaks of, each once. */
export const namedIn = (text: string, kind: ThingKind): readonly string[] => [...new Set(named(text, kind).map((name) => name.text))];

/** A flow with a thing's new name; the same text where it does not speak of it. */
export function renamedIn(text: string, kind: ThingKind, from: string, to: string): string {
  let out = text;
  for (const name of [...named(text, kind)].reverse())
    if (name.text === from) out = `${out.slice(0, name.from)}${quote(to)}${out.slice(name.to)}`;
  return out;
}

/** The stages that a flow's lines name: those of one pipeline, and those that deals are moved to, which name none. */
function stagesIn(text: string, pipeline: string): readonly Named[] {
  const steps = numberedLines(parseFlow(text).tree.lines).map(({ line }) => line.step);
  const applications = new Set(
    steps.flatMap((step) => (step.verb === 'open' && step.what === 'application' && step.as ? [step.as.text] : [])),
  );
  return steps.flatMap((step) => {
    if (step.verb === 'open' && step.what === 'deal') return step.pipeline.text === pipeline ? [step.stage] : [];
    return step.verb === 'move' && !applications.has(step.what.text) ? [step.stage] : [];
  });
}

/** A flow with new names of a pipeline's stages; the same text where it does not speak of them. */
export function stagesRenamedIn(text: string, pipeline: string, names: ReadonlyMap<string, string>): string {
  let out = text;
  for (const stage of [...stagesIn(text, pipeline)].reverse()) {
    const to = names.get(stage.text);
    if (to !== undefined) out = `${out.slice(0, stage.from)}${quote(to)}${out.slice(stage.to)}`;
  }
  return out;
}
