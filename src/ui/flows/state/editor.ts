/**
 * The draft while it is edited: its text, what was before and after, and whether the server has it. A plain reducer: the
 * view sends actions, a test does the same without a browser. Texts carry their marks.
 */
export type SaveState = 'saved' | 'changed' | 'saving' | 'conflict' | 'failed';

export interface EditorState {
  readonly text: string;
  /** number of the draft the text was begun on */
  readonly base: number;
  readonly past: readonly string[];
  readonly future: readonly string[];
  readonly save: SaveState;
  readonly problem: string | null;
}

export type EditorAction =
  | { readonly kind: 'change'; readonly text: string }
  | { readonly kind: 'undo' }
  | { readonly kind: 'redo' }
  | { readonly kind: 'saving' }
  /** `sent` is what was sent; `text` is what the server made of it (the same lines, with marks) */
  | { readonly kind: 'saved'; readonly sent: string; readonly text: string; readonly base: number }
  | { readonly kind: 'conflict'; readonly problem: string }
  | { readonly kind: 'failed'; readonly problem: string }
  /** takes the server's draft; what was here stays one undo away */
  | { readonly kind: 'load'; readonly text: string; readonly base: number }
  /** keeps the text here and saves it over the other draft */
  | { readonly kind: 'keep mine'; readonly base: number };

const KEPT_STEPS = 200;

export function openEditor(text: string, base: number): EditorState {
  return { text, base, past: [], future: [], save: 'saved', problem: null };
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
    case 'saved':
      return state.text === action.sent
        ? { ...state, text: action.text, base: action.base, save: 'saved', problem: null }
        : { ...state, base: action.base, save: 'changed', problem: null };
    case 'conflict':
    case 'failed':
      return { ...state, save: action.kind, problem: action.problem };
    case 'load':
      return { ...openEditor(action.text, action.base), past: remember(state.past, state.text) };
    case 'keep mine':
      return { ...state, base: action.base, save: 'changed', problem: null };
  }
}

/** A conflict stays one until a person has decided; anything else that is changed waits to be saved. */
const mark = (save: SaveState): SaveState => (save === 'conflict' ? 'conflict' : 'changed');
