import type { ReactNode } from 'react';
import type { ScriptRow } from '../state/script';
import { Sentence } from './Sentence';

/** Which line the panel beside the script speaks of, and how it reads. */
export function LineHead({ row, children }: { readonly row: ScriptRow; readonly children?: ReactNode }) {
  return (
    <div style={{ display: 'flex', gap: 8, alignItems: 'baseline', height: 26 }}>
      <span className="quiet" style={{ flex: 'none' }}>
        {row.kind === 'line' ? `Line ${row.number}` : 'Arm'}
      </span>
      <span className="cut">
        <Sentence parts={row.parts} />
      </span>
      {children}
    </div>
  );
}
