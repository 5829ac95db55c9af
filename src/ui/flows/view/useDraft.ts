'use client';
import { useCallback, useEffect, useReducer } from 'react';
import { ApiProblem, call, sayProblem } from '../../client';
import { editorReducer, openEditor, type EditorAction, type EditorState } from '../state/editor';

const SAVE_AFTER_MS = 600;

/** The draft, saved as it is typed. What somebody else saved meanwhile is never written over without being asked. */
export function useDraft(
  flowId: string,
  text: string,
  base: number,
  mayEdit: boolean,
): readonly [EditorState, (action: EditorAction) => void, () => Promise<boolean>] {
  const [state, send] = useReducer(editorReducer, undefined, () => openEditor(text, base));

  const saveNow = useCallback(async (): Promise<boolean> => {
    if (state.save === 'saved') return true;
    send({ kind: 'saving' });
    try {
      const saved = await call('saveDraft', { params: { id: flowId }, body: { text: state.text, base: state.base } });
      send({ kind: 'saved', sent: state.text, text: saved.draftText, base: saved.draftNo });
      return true;
    } catch (error) {
      const kind = error instanceof ApiProblem && error.status === 409 ? 'conflict' : 'failed';
      send({ kind, problem: sayProblem(error) });
      return false;
    }
  }, [flowId, state.save, state.text, state.base]);

  useEffect(() => {
    if (!mayEdit || state.save !== 'changed') return;
    const timer = setTimeout(() => void saveNow(), SAVE_AFTER_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [mayEdit, state.save, state.text, saveNow]);

  return [state, send, saveNow];
}
