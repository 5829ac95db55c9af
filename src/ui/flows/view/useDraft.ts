'use client';
import { useCallback, useEffect, useReducer, useRef, useState } from 'react';
import { ApiProblem, call, onLive, sayProblem } from '../../client';
import { editorReducer, openEditor, type EditorAction, type EditorState } from '../state/editor';

const SAVE_AFTER_MS = 600;
/** Somebody who was not heard of for so long has left. */
const HERE_FOR_MS = 40_000;
const THEIRS_SHOWN_MS = 12_000;

interface Opened {
  readonly id: string;
  readonly text: string;
  readonly base: number;
  /** drafts saved before, oldest first */
  readonly saved: readonly string[];
  readonly userId: string;
  readonly mayEdit: boolean;
}
interface Draft {
  readonly state: EditorState;
  readonly send: (action: EditorAction) => void;
  readonly saveNow: () => Promise<boolean>;
  /** names of others who have this flow open */
  readonly others: readonly string[];
}

/** The draft, saved as it is typed. What somebody else saves meanwhile is joined at once; nothing is written over. */
export function useDraft({ id, text, base, saved, userId, mayEdit }: Opened): Draft {
  const [state, send] = useReducer(editorReducer, undefined, () => openEditor(text, base, saved));
  const known = useRef(state);
  useEffect(() => {
    known.current = state;
  }, [state]);

  const takeTheirs = useCallback(
    async (name: string): Promise<void> => {
      const other = await call('getFlow', { params: { id } });
      send({ kind: 'theirs', text: other.draftText, base: other.draftNo, name });
    },
    [id],
  );

  const saveNow = useCallback(async (): Promise<boolean> => {
    if (state.save === 'saved') return true;
    send({ kind: 'saving' });
    try {
      const stored = await call('saveDraft', { params: { id }, body: { text: state.text, base: state.base } });
      send({ kind: 'saved', sent: state.text, text: stored.draftText, base: stored.draftNo });
      return true;
    } catch (error) {
      try {
        if (error instanceof ApiProblem && error.status === 409 && 'draftNo' in error.detail) {
          await takeTheirs('Somebody else');
          return false;
        }
      } catch {
        // What stands below says it: the draft is not saved.
      }
      send({ kind: 'failed', problem: sayProblem(error) });
      return false;
    }
  }, [id, state.save, state.text, state.base, takeTheirs]);

  useEffect(() => {
    if (!mayEdit || state.save !== 'changed') return;
    const timer = setTimeout(() => void saveNow(), SAVE_AFTER_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [mayEdit, state.save, state.text, saveNow]);

  // A word about a saved draft can be lost; the page itself comes with the newest one.
  useEffect(() => {
    if (known.current.save !== 'saving') send({ kind: 'theirs', text, base, name: 'Somebody else' });
  }, [text, base]);

  const [here, setHere] = useState<ReadonlyMap<string, { readonly name: string; readonly at: number }>>(new Map());
  useEffect(
    () =>
      onLive((event) => {
        if (event.kind === 'new' || event.flowId !== id || event.userId === null) return;
        const { userId: other, name } = event;
        // What this page itself is saving comes back as its answer; the same person may have a second page open.
        const own = other === userId && known.current.save === 'saving';
        if (event.kind === 'draft' && event.no > known.current.base && !own) takeTheirs(name).catch(() => undefined);
        if (other !== userId) setHere((before) => new Map(before).set(other, { name, at: performance.now() }));
      }),
    [id, userId, takeTheirs],
  );
  useEffect(() => {
    if (here.size === 0) return;
    const timer = setTimeout(() => {
      setHere((before) => new Map([...before].filter(([, entry]) => performance.now() - entry.at < HERE_FOR_MS)));
    }, HERE_FOR_MS / 2);
    return () => {
      clearTimeout(timer);
    };
  }, [here]);
  useEffect(() => {
    if (!state.theirs) return;
    const timer = setTimeout(() => {
      send({ kind: 'seen' });
    }, THEIRS_SHOWN_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [state.theirs]);
  return { state, send, saveNow, others: [...here.values()].map((entry) => entry.name) };
}
