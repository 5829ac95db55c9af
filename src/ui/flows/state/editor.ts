/**
 * The draft while it is edited: its text, what was before and after, and whether the server has it. A plain reducer: the
 * view sends actions, a test does the same without a browser. Texts carry their marks.
 */
import { keepMarks, mergeTexts } from '../../../core/flow/edit';

export type SaveState = 'saved' | 'changed' | 'saving' | 'conflict' | 'failed';

export interface EditorState {
  readonly text: string;
  /** number of the draft the text was begun on, and that draft's text */
  readonly base: number;
  readonly stored: string;
  readonly past: readonly string[];
  readonly future: readonly string[];
  readonly save: SaveState;
  readonly problem: string | null;
  /** what somebody else changed last, and where */
  readonly theirs: { readonly name: string; readonly rows: number } | null;
}

export type EditorAction =
  | { readonly kind: 'change'; readonly text: string }
  | { readonly kind: 'undo' }
  | { readonly kind: 'redo' }
  | { readonly kind: 'saving' }
  /** `sent` is what was sent; `text` is what the server made of it (the same lines, with marks) */
  | { readonly kind: 'saved'; readonly sent: string; readonly text: string; readonly base: number }
  /** somebody else saved: their draft is joined with what was changed here */
  | { readonly kind: 'theirs'; readonly text: string; readonly base: number; readonly name: string }
  | { readonly kind: 'seen' }
  | { readonly kind: 'failed'; readonly problem: string }
  /** takes the server's draft; what was here stays one undo away */
  | { readonly kind: 'load'; readonly text: string; readonly base: number }
  /** keeps the text here and saves it over the other draft */
  | { readonly kind: 'keep mine'; readonly text: string; readonly base: number };

const KEPT_STEPS = 200;
/** So many steps back are joined with what somebody else changed; older ones would undo it. */
const JOINED_STEPS = 50;

/** `saved` are the texts of the drafts saved so far, oldest first: undo and redo go on where they were left. */
export function openEditor(text: string, base: number, saved: readonly string[] = []): EditorState {
  return { text, base, stored: text, ...stacksOf(text, saved), save: 'saved', problem: null, theirs: null };
}

/** Reads a row of saved texts as the walk it was: a text that was the one before is an undo, the one after it a redo. */
function stacksOf(text: string, saved: readonly string[]): Pick<EditorState, 'past' | 'future'> {
  let past: readonly string[] = [];
  let future: readonly string[] = [];
  let at: string | undefined;
  for (const next of [...saved, text]) {
    if (next === at) continue;
    if (at === undefined) at = next;
    else if (next === past.at(-1)) [past, future, at] = [past.slice(0, -1), [at, ...future], next];
    else [past, future, at] = [remember(past, at), next === future[0] ? future.slice(1) : [], next];
  }
  return { past, future };
}

const remember = (past: readonly string[], text: string): readonly string[] => [...past.slice(-KEPT_STEPS + 1), text];

export function editorReducer(state: EditorState, action: EditorAction): EditorState {
  switch (action.kind) {
    case 'change':
      if (action.text === state.text) return state;
      return { ...state, text: action.text, past: remember(state.past, state.text), future: [], save: mark(state.save) };
    case 'undo': {
      const text = state.past.at(-1);
      return text === undefined
        ? state
        : { ...state, text, past: state.past.slice(0, -1), future: [state.text, ...state.future], save: mark(state.save) };
    }
    case 'redo': {
      const [text, ...future] = state.future;
      return text === undefined ? state : { ...state, text, past: remember(state.past, state.text), future, save: mark(state.save) };
    }
    case 'saving':
      return { ...state, save: 'saving', problem: null };
    case 'saved': {
      const { text: stored, base } = action;
      // An answer that was overtaken by somebody else's newer draft says nothing new.
      if (base < state.base) return state;
      return state.text === action.sent
        ? { ...state, text: stored, stored, base, save: 'saved', problem: null }
        : { ...state, stored, base, save: 'changed', problem: null };
    }
    case 'theirs':
      return withTheirs(state, action);
    case 'seen':
      return { ...state, theirs: null };
    case 'failed':
      return { ...state, save: action.kind, problem: action.problem };
    case 'load':
      return { ...openEditor(action.text, action.base), past: remember(state.past, state.text) };
    case 'keep mine':
      return { ...state, base: action.base, stored: action.text, save: 'changed', problem: null };
  }
}

function withTheirs(state: EditorState, other: { readonly text: string; readonly base: number; readonly name: string }): EditorState {
  if (other.base <= state.base) return state;
  // Text typed in the text view has no marks yet; with them, a line is known again wherever it moved.
  const join = (mine: string): string | undefined =>
    mergeTexts(state.stored, mine === state.stored ? mine : keepMarks(state.stored, mine), other.text);
  const text = join(state.text);
  if (text === undefined)
    return { ...state, save: 'conflict', problem: `${other.name} changed a line that you changed too. Your text is still here.` };
  const joined = (texts: readonly string[]): readonly string[] => texts.map(join).filter((entry) => entry !== undefined);
  return {
    ...state,
    text,
    base: other.base,
    stored: other.text,
    past: joined(state.past.slice(-JOINED_STEPS)),
    future: joined(state.future.slice(0, JOINED_STEPS)),
    save: text === other.text ? 'saved' : 'changed',
    problem: null,
    theirs: { name: other.name, rows: rowsChanged(state.stored, other.text) },
  };
}

/** Rows of `after` that are not in `before`, or of `before` that are gone: the larger of the two. */
function rowsChanged(before: string, after: string): number {
  const [was, now] = [before, after].map((text) => text.split('\n').filter((row) => row.trim() !== ''));
  const missing = (from: readonly string[] = [], among: readonly string[] = []): number =>
    from.filter((row) => !among.includes(row)).length;
  return Math.max(missing(now, was), missing(was, now));
}

/** A conflict stays one until a person has decided; anything else that is changed waits to be saved. */
const mark = (save: SaveState): SaveState => (save === 'conflict' ? 'conflict' : 'changed');
