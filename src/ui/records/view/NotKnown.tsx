'use client';
import { useState } from 'react';
import { useFields } from '../../client/fields';
import { notKnown } from '../state/group';
import type { KnownField, KnownOf } from '../state/types';
import { EditValue } from './EditValue';

/** Fields nothing is known of yet: each is set with a click. */
export function NotKnown({ known, of }: { readonly known: readonly KnownField[]; readonly of: readonly KnownOf[] }) {
  const missing = notKnown(known, of, useFields());
  const [editing, setEditing] = useState<KnownField | null>(null);
  if (missing.length === 0) return null;
  return (
    <section aria-label="Not known yet">
      <h3 className="group-head">Not known yet</h3>
      <p className="not-known">
        {missing.map((field) => (
          <button
            key={`${field.recordId} ${field.key}`}
            className="linkish"
            aria-pressed={editing?.key === field.key && editing.recordId === field.recordId}
            onClick={() => {
              setEditing(field);
            }}
          >
            + {field.label}
          </button>
        ))}
      </p>
      {editing ? (
        <div className="fact" key={`${editing.recordId} ${editing.key}`}>
          <span className="quiet">{editing.label}</span>
          <EditValue
            field={editing}
            onDone={() => {
              setEditing(null);
            }}
          />
        </div>
      ) : null}
    </section>
  );
}
