'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { OwnField } from '../../../core/fields';
import { call, sayProblem } from '../../client';
import { typeText } from '../../../core/fields';

/** Questions whose answers have no field on the record yet: each can be given one on the spot. */
export function FieldsAskedFor({ fields }: { readonly fields: readonly OwnField[] }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [made, setMade] = useState<readonly string[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const open = fields.filter(({ key }) => !made.includes(key));
  const make = (field: OwnField): void => {
    setBusy(true);
    setProblem(null);
    call('makeField', { body: field }).then(
      () => {
        setBusy(false);
        setMade([...made, field.key]);
        router.refresh();
      },
      (error: unknown) => {
        setBusy(false);
        setProblem(sayProblem(error));
      },
    );
  };
  if (open.length === 0 && made.length === 0) return null;
  return (
    <div className="asked-for small" role="status">
      {made.map((key) => (
        <p key={key} className="in-moss">
          {key.replace(/_/g, ' ')} is a field now: answers are kept on the record.
        </p>
      ))}
      {open.map((field) => (
        <p key={field.key}>
          <span className="code">{field.key}</span> is no field of a {field.record} yet: its answer stays with the trip.{' '}
          <button className="linkish" disabled={busy} onClick={() => make(field)}>
            Make the field ({typeText(field)})
          </button>
        </p>
      ))}
      {problem === null ? null : <p className="in-brick">{problem}</p>}
    </div>
  );
}
