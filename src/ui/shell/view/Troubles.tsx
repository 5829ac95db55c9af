'use client';
import type { Answer } from '../../../api';
import Link from '../../kit/Link';
import { useState } from 'react';

type TroubleView = Answer<'readRail'>['troubles'][number];

/** What around us does not answer, on every page; more than one is counted and opened. */
export function Troubles({ troubles }: { readonly troubles: readonly TroubleView[] }) {
  const [open, setOpen] = useState(false);
  if (troubles.length === 0) return null;
  const shown = open ? troubles : troubles.slice(0, 1);
  return (
    <div role="status" aria-label="What does not answer">
      {shown.map((trouble) => (
        <div key={trouble.says} className="notice">
          <span className="grow">
            <span className="strong">■ {trouble.says}</span> {trouble.todo}{' '}
            {trouble.href === null ? null : <Link href={trouble.href}>Open it</Link>}
          </span>
          {trouble === shown[0] && troubles.length > 1 ? (
            <button
              className="linkish"
              onClick={() => {
                setOpen(!open);
              }}
            >
              {open ? 'show one' : `${troubles.length - 1} more`}
            </button>
          ) : null}
        </div>
      ))}
    </div>
  );
}
