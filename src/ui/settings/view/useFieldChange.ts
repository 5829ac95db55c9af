import { useState } from 'react';
import type { FieldEdit, FieldTrial, FieldView } from '../../../api';
import { call, sayProblem } from '../../client';
import { draftOf, fieldFrom, type Draft } from '../state/fields';

/** A field as it is being changed: what was typed, and what a change would do to its values. */
export function useFieldChange({ field }: FieldView, onEdit: (edit: FieldEdit, says: string) => void) {
  const [draft, setDraft] = useState(draftOf(field));
  const [figures, setKept] = useState<'convert' | 'keep'>('convert');
  const [tried, setTried] = useState<{ readonly edit: FieldEdit; readonly trial: FieldTrial } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { isStandard: _isStandard, isComputed: _isComputed, ...before } = field;
  const made = fieldFrom(field.record, draft, before);
  const touchesValues =
    made.ok &&
    (made.field.type !== field.type || made.field.unit !== field.unit || (made.field.trust ?? []).join() !== (field.trust ?? []).join());
  const look = (edit: FieldEdit): void => {
    call('tryField', { body: edit }).then(
      (trial) => {
        setProblem(null);
        setTried({ edit, trial });
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  return {
    field,
    draft,
    made,
    changed: JSON.stringify(draft) !== JSON.stringify(draftOf(field)),
    touchesValues,
    figures,
    tried,
    setTried,
    problem,
    setProblem,
    look,
    put: (change: Partial<Draft>): void => {
      setDraft({ ...draft, ...change });
      setTried(null);
    },
    setFigures: (kept: 'convert' | 'keep'): void => {
      setKept(kept);
      setTried(null);
    },
    /** What touches values is looked at first. */
    keep: (): void => {
      if (!made.ok) return;
      const edit: FieldEdit = { does: 'change', field: made.field, figures };
      if (touchesValues) look(edit);
      else onEdit(edit, `${made.field.label} is changed.`);
    },
  };
}
export type FieldChange = ReturnType<typeof useFieldChange>;
