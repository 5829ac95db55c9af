'use client';
import { TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { RecordKind } from '../../../core/base';
import { printValue, type FactValue } from '../../../core/fields';
import { ApiProblem, call, sayProblem } from '../../client';
import type { KnownField } from '../state/types';

type Params = { readonly id: string };
type Body = { readonly values: Record<string, FactValue>; readonly was: Record<string, FactValue> };
const CHANGE: { readonly [K in RecordKind]: (params: Params, body: Body) => Promise<unknown> } = {
  person: (params, body) => call('changePerson', { params, body }),
  company: (params, body) => call('changeCompany', { params, body }),
  deal: (params, body) => call('changeDeal', { params, body }),
  opening: (params, body) => call('changeOpening', { params, body }),
  application: (params, body) => call('changeApplication', { params, body }),
};

/** A value being typed: it becomes a fact said by hand; what somebody else changed meanwhile is shown, not written over. */
export function EditValue({ field, onDone }: { readonly field: KnownField; readonly onDone: () => void }) {
  const router = useRouter();
  const before = field.fact?.value;
  const [typed, setTyped] = useState(before == null ? '' : typeof before === 'boolean' ? (before ? 'yes' : 'no') : String(before));
  const [problem, setProblem] = useState<string | null>(null);
  /** what was seen when the editing began, or was told since */
  const [was, setWas] = useState<FactValue>(before ?? null);
  const [clash, setClash] = useState<{ readonly now: FactValue; readonly by: string } | null>(null);
  const save = (seen = was): void => {
    const body = { values: { [field.key]: typed }, was: { [field.key]: seen } };
    const params = { id: field.recordId };
    CHANGE[field.record](params, body).then(
      () => {
        onDone();
        router.refresh();
      },
      (error: unknown) => {
        if (error instanceof ApiProblem && error.status === 409 && 'now' in error.detail) {
          const { now, by } = error.detail as unknown as { readonly now: FactValue; readonly by: string };
          setClash({ now, by });
          setWas(now);
          setProblem(null);
        } else setProblem(sayProblem(error));
      },
    );
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <TextField
        autoFocus
        fullWidth
        value={typed}
        error={problem !== null}
        onChange={(event) => {
          setTyped(event.target.value);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape') onDone();
        }}
        slotProps={{ htmlInput: { 'aria-label': `New value of ${field.label}` } }}
      />
      {clash ? (
        <p className="small in-brass" role="alert">
          {clash.by} made it “{printValue(clash.now, field.unit ?? undefined)}” meanwhile.{' '}
          <button
            type="button"
            className="linkish"
            onClick={() => {
              onDone();
              router.refresh();
            }}
          >
            keep theirs
          </button>{' '}
          ·{' '}
          <button type="submit" className="linkish">
            put mine
          </button>
        </p>
      ) : null}
      <p className={`small ${problem ? 'in-brick' : 'quiet'}`} role={problem ? 'alert' : undefined}>
        {problem ?? `Enter keeps it as said by hand${field.unit ? `, in ${field.unit}` : ''}; the other values stay below · Escape leaves`}
      </p>
    </form>
  );
}
