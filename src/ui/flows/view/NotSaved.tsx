import { useState } from 'react';
import { call, sayProblem } from '../../client';
import { Notice } from '../../kit/parts';
import type { EditorAction, EditorState } from '../state/editor';

interface Props {
  readonly flowId: string;
  readonly draft: EditorState;
  readonly send: (action: EditorAction) => void;
  readonly saveNow: () => Promise<boolean>;
}

/** Why the draft is not saved, and the choices: save again, or settle what somebody else saved meanwhile. */
export function NotSaved({ flowId, draft, send, saveNow }: Props) {
  const [problem, setProblem] = useState<string | null>(null);
  if (!draft.problem) return null;
  const settle = (choose: (other: { readonly draftText: string; readonly draftNo: number }) => EditorAction) => () => {
    setProblem(null);
    call('getFlow', { params: { id: flowId } }).then(
      (other) => {
        send(choose(other));
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  return (
    <Notice>
      {problem ?? draft.problem}{' '}
      {draft.save === 'conflict' ? (
        <>
          <button className="linkish" onClick={settle((other) => ({ kind: 'load', text: other.draftText, base: other.draftNo }))}>
            take theirs (yours is one undo away)
          </button>{' '}
          ·{' '}
          <button className="linkish" onClick={settle((other) => ({ kind: 'keep mine', text: other.draftText, base: other.draftNo }))}>
            keep mine
          </button>
        </>
      ) : (
        <button className="linkish" onClick={() => void saveNow()}>
          save again
        </button>
      )}
    </Notice>
  );
}
