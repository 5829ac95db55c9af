/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, Select } from '@mui/material';
import { listTargetsOf, targetLabel } from '../../../core/intake';
import { useFields } from '../../client/fields';
import { placed } from '../../kit/placed';
import type { PreviewView } from '../state/preview';
import type { TakingIn } from './useTakeIn';

interface Props extends Pick<TakingIn, 'busy' | 'change' | 'choosePart'> {
  readonly preview: PreviewView;
  readonly mayTakeIn: boolean;
}

/** What each column means, and why it is thought so; any can be said otherwise. */
export function TakeInColumns({ preview, busy, change, choosePart, mayTakeIn }: Props) {
  const fields = useFields();
  return (
    <section className="col paper grow" aria-label="Columns">
      <div className="bar">
        <h2 className="grow">What the columns mean</h2>
        {preview.table.parts.length > 1 ? (
          <span>
            <span className="quiet">of “{preview.import.fileName}” read </span>
            <Select
              value={preview.table.part}
              disabled={!mayTakeIn || busy}
              onChange={(event) => {
                choosePart(event.target.value);
              }}
              inputProps={{ 'aria-label': 'Part of the file' }}
            >
              {preview.table.parts.map((part) => (
                <MenuItem key={part} value={part}>
                  {part}
                </MenuItem>
              ))}
            </Select>
          </span>
        ) : (
          <span className="quiet">guessed from headings and contents · kept for lists with these headings</span>
        )}
      </div>
      <table className="plain">
        <tbody>
          {preview.columns.map((column, i) => (
            <tr key={`${column.heading} ${i}`}>
              <td css={placed({ width: '36%', padding: '8px 8px 8px 20px', maxWidth: 0 })}>
                <div className="strong">{column.heading}</div>
                <div className="quiet small cut">{column.samples.join(' · ') || '–'}</div>
              </td>
              <td css={placed({ width: 24 })} className="quiet" aria-hidden>
                →
              </td>
              <td css={placed({ width: 196 })}>
                <Select
                  value={column.target}
                  disabled={!mayTakeIn || busy}
                  onChange={(event) => {
                    change(i, event.target.value);
                  }}
                  inputProps={{ 'aria-label': `${column.heading} is` }}
                  sx={{ width: 188 }}
                >
                  {listTargetsOf(fields).map((target) => (
                    <MenuItem key={target} value={target}>
                      {targetLabel(target, fields)}
                    </MenuItem>
                  ))}
                </Select>
              </td>
              <td className="quiet small">
                <span
                  css={placed({
                    color: column.target === 'leave out' ? 'var(--edge)' : column.sure ? 'var(--w4)' : 'var(--brass-mark)',
                  })}
                  aria-hidden
                >
                  ●{' '}
                </span>
                {column.why}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
