/** @jsxImportSource @emotion/react */
'use client';
import Link from '../../kit/Link';
import { useState } from 'react';
import { plural } from '../../../core/base';
import type { DifferenceKind } from '../../../core/engine';
import { changeGroups, type ChangedTrip } from '../state/release';
import type { ScriptRow } from '../state/script';
import { placed } from '../../kit/placed';

const WORDS: Record<DifferenceKind, { readonly glyph: string; readonly tone: string; readonly says: string }> = {
  'written to': { glyph: '+', tone: 'in-moss', says: 'would be written to, and were not' },
  'not written to': { glyph: '−', tone: 'in-brick', says: 'would no longer be written to' },
  'up a band': { glyph: '▲', tone: 'in-river', says: 'move up a band' },
  'down a band': { glyph: '▼', tone: 'quiet', says: 'move down a band' },
  'other way': { glyph: '⤷', tone: 'in-brass', says: 'end another way' },
  'other lines': { glyph: '≈', tone: 'in-brass', says: 'come to the same end by other lines' },
  same: { glyph: '=', tone: 'quiet', says: 'same outcome' },
};
const MOST_SHOWN = 40;

/** The draft against the live version on the last trips: counts by kind, each openable down to the line that made the difference. */
export function WhatWouldChange({ trips, rows }: { readonly trips: readonly ChangedTrip[]; readonly rows: readonly ScriptRow[] }) {
  const [open, setOpen] = useState<DifferenceKind | null>(null);
  const lineName = (mark: string | null): string => {
    const row = rows.find((entry) => entry.mark === mark);
    return row?.kind === 'line' ? `line ${row.number} ${row.line.step.verb}` : 'a line that is gone';
  };
  const missing = new Set(trips.flatMap((trip) => trip.missing));
  return (
    <div>
      {changeGroups(trips).map((group) => (
        <div key={group.kind} className="change">
          <button
            aria-expanded={open === group.kind}
            onClick={() => {
              setOpen(open === group.kind ? null : group.kind);
            }}
          >
            <span className={`strong num ${WORDS[group.kind].tone}`} css={placed({ width: 44, textAlign: 'right' })}>
              {group.trips.length}
            </span>
            <span className={WORDS[group.kind].tone} css={placed({ width: 18, textAlign: 'center' })} aria-hidden>
              {WORDS[group.kind].glyph}
            </span>
            <span className="grow">
              <span className="strong">{WORDS[group.kind].says}</span>
              <span className="quiet small" css={placed({ display: 'block' })}>
                {group.kind === 'same'
                  ? 'with what was read then'
                  : group.reasons.map((reason) => `${lineName(reason.mark)}: ${reason.trips}`).join(' · ')}
              </span>
            </span>
            <span className="link">{open === group.kind ? 'hide' : 'show'}</span>
          </button>
          {open === group.kind ? (
            <table className="plain">
              <thead>
                <tr>
                  <th>record</th>
                  <th>where they part</th>
                  <th>live</th>
                  <th>draft</th>
                </tr>
              </thead>
              <tbody>
                {group.trips.slice(0, MOST_SHOWN).map((trip) => (
                  <tr key={trip.tripId}>
                    <td>
                      <Link href={`/trips/${trip.tripId}`}>{trip.personName}</Link>
                      <span className="quiet small" css={placed({ display: 'block' })}>
                        {trip.companyName}
                      </span>
                    </td>
                    <td className="quiet">{trip.mark === null ? '' : lineName(trip.mark)}</td>
                    <td>
                      {group.kind.endsWith('band')
                        ? `${trip.before.band ?? '–'}, ${trip.before.points ?? '–'}`
                        : trip.beforeSays || trip.before.says}
                    </td>
                    <td>
                      {group.kind.endsWith('band')
                        ? `${trip.after.band ?? '–'}, ${trip.after.points ?? '–'}`
                        : trip.afterSays || trip.after.says}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : null}
          {open === group.kind && group.trips.length > MOST_SHOWN ? (
            <p className="quiet small" css={placed({ padding: '4px 8px' })}>
              and {group.trips.length - MOST_SHOWN} more
            </p>
          ) : null}
        </div>
      ))}
      {missing.size > 0 ? (
        <p className="in-brass small" css={placed({ padding: '8px 0' })}>
          ◆ The draft asks what was never asked of these records ({[...missing].slice(0, 4).join(', ')}): here that counts as not found. A
          trial finds out.
        </p>
      ) : null}
      {trips.length === 0 ? (
        <p className="quiet">No trip yet to compare with.</p>
      ) : (
        <p className="quiet small">{plural(trips.length, 'trip')} replayed; nothing outside was asked.</p>
      )}
    </div>
  );
}
