/** @jsxImportSource @emotion/react */
'use client';
import { Tooltip } from '@mui/material';
import { euro } from '../../kit/format';
import { entryAt, OUTCOME_GLYPH } from '../state/specimen';
import type { LineRow, ScriptRow } from '../state/script';
import type { Trial } from '../state/types';
import { placed } from '../../kit/placed';

interface Props {
  readonly rows: readonly ScriptRow[];
  readonly trial: Trial;
  readonly at: number;
  readonly mark: string | undefined;
  readonly onChoose: (at: number, mark: string) => void;
}

/** Specimens down, lines across, a glyph per cell: a pattern of failures is seen at once. */
export function Sheet({ rows, trial, at, mark, onChoose }: Props) {
  const lines = rows.filter((row): row is LineRow => row.kind === 'line');
  return (
    <div css={placed({ overflow: 'auto' })}>
      <table className="plain sheet">
        <thead>
          <tr>
            <th className="stays">specimen</th>
            {lines.map((row) => (
              <th key={row.mark} css={placed({ textAlign: 'center', padding: '6px 2px' })} title={row.line.step.verb}>
                {row.number}
              </th>
            ))}
            <th className="right">cost</th>
          </tr>
        </thead>
        <tbody>
          {trial.trips.map((trip, i) => (
            <tr key={trip.id}>
              <td className="cut stays" css={placed({ maxWidth: 190 })}>
                <span className="strong">{trip.title}</span> <span className="quiet small">{trip.companyName}</span>
              </td>
              {lines.map((row) => {
                const entry = entryAt(trip, row.mark);
                const shown = entry && OUTCOME_GLYPH[entry.outcome];
                return (
                  <td key={row.mark} className={`cell ${i === at && row.mark === mark ? 'on' : ''}`}>
                    {entry && shown ? (
                      <Tooltip title={`${row.line.step.verb}: ${entry.says}`}>
                        <button
                          className={`linkish ${shown.tone}`}
                          css={placed({ textDecoration: 'none' })}
                          aria-label={`${trip.title}, line ${row.number}: ${entry.outcome}`}
                          onClick={() => {
                            onChoose(i, row.mark);
                          }}
                        >
                          {shown.glyph}
                        </button>
                      </Tooltip>
                    ) : (
                      <span className="quiet" aria-label="not reached">
                        ·
                      </span>
                    )}
                  </td>
                );
              })}
              <td className="right quiet" css={placed({ whiteSpace: 'nowrap' })}>
                {euro(trip.journal.reduce((sum, entry) => sum + entry.costMicro, 0))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet small" css={placed({ padding: '10px 16px', position: 'sticky', left: 0, width: 'fit-content' })}>
        {Object.entries(OUTCOME_GLYPH).map(([outcome, { glyph, tone }]) => (
          <span key={outcome} css={placed({ marginRight: 14 })}>
            <span className={tone}>{glyph}</span> {outcome}
          </span>
        ))}
      </p>
    </div>
  );
}
