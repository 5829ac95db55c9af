/** Flow text as somebody typed or sent it: a screen of it is read here, more of it where it can harm nobody. */
import { cleanText } from '../../core/base';
import { checkFlow, type Finding, type Library } from '../../core/flow/check';
import { keepMarks, marked } from '../../core/flow/edit';
import { parseFlow } from '../../core/flow/syntax';
import { WorldFailure, type BoxWork } from '../ports';
import { Refusal, type World } from '../platform/world';

/** Characters of a long screen of flow text. */
const SCREEN = 6_000;
export const FLOW_LINES = 100_000;

/** What the box refuses, told to who asked. */
export async function boxed<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof WorldFailure) throw new Refusal(error.retryable ? 'too often' : 'not valid', error.message);
    throw error;
  }
}

function withinLimits(text: string): string {
  let lines = 1;
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) lines += 1;
  if (lines > FLOW_LINES)
    throw new Refusal(
      'not valid',
      `this flow has ${lines.toLocaleString('en-GB')} lines: at most ${FLOW_LINES.toLocaleString('en-GB')} are read`,
    );
  return cleanText(text);
}

export async function findingsOf(world: World, typed: string, library: Library): Promise<readonly Finding[]> {
  const text = withinLimits(typed);
  return text.length <= SCREEN ? checkFlow(parseFlow(text), library) : boxed(world.box.run('flow', { text, library }));
}

/** The text as it is kept, with the marks of `before` for lines that stayed, and the name in it. */
export async function draftOf(world: World, typed: string, before: string | null): Promise<BoxWork['draft']['out']> {
  const text = withinLimits(typed);
  if (text.length + (before?.length ?? 0) > SCREEN) return boxed(world.box.run('draft', { text, before }));
  const kept = before === null ? marked(text) : keepMarks(before, text);
  return { name: parseFlow(kept).tree.name?.text.trim() ?? '', text: kept };
}
