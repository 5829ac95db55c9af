/** @jsxImportSource @emotion/react */
import type { ReactNode } from 'react';
import type { ScriptRow } from '../state/script';
import { Sentence } from './Sentence';
import { placed } from '../../kit/placed';

/** Which line the panel beside the script speaks of, and how it reads. */
export function LineHead({ row, children }: { readonly row: ScriptRow; readonly children?: ReactNode }) {
  return (
    <div css={placed({ display: 'flex', gap: 8, alignItems: 'baseline', height: 26 })}>
      <span className="quiet" css={placed({ flex: 'none' })}>
        {row.kind === 'line' ? `Line ${row.number}` : 'Arm'}
      </span>
      <span className="cut">
        <Sentence parts={row.parts} />
      </span>
      {children}
    </div>
  );
}
