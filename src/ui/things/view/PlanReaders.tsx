/** @jsxImportSource @emotion/react */
'use client';
import { useState } from 'react';
import type { PlanTrial } from '../../../api';
import { dayTimeText, zoneText } from '../../kit/format';
import { placed } from '../../kit/placed';
import { CHANNEL_GLYPHS } from '../state/plan';

/** Begun now, for readers who differ: real days in their own time, with why each is another day, another way or none. */
export function PlanReaders({ readers }: { readonly readers: PlanTrial['readers'] }) {
  const [at, setAt] = useState(0);
  const reader = readers[Math.min(at, readers.length - 1)];
  return (
    <section aria-label="For one reader">
      <div className="head-row">
        <h2>Begun now, for one reader</h2>
        <span className="grow" />
        {readers.length > 1 ? (
          <>
            <button
              className="linkish"
              aria-label="Reader before"
              onClick={() => {
                setAt((Math.min(at, readers.length - 1) + readers.length - 1) % readers.length);
              }}
            >
              ‹
            </button>
            <button
              className="linkish"
              aria-label="Next reader"
              onClick={() => {
                setAt((Math.min(at, readers.length - 1) + 1) % readers.length);
              }}
            >
              ›
            </button>
          </>
        ) : null}
      </div>
      {reader ? (
        <>
          <p css={placed({ margin: '0 0 6px' })}>
            <span className="strong">{reader.name}</span>{' '}
            <span className="quiet">
              {reader.company === null ? '' : `${reader.company} · `}times in {zoneText(reader.zone)}
            </span>
          </p>
          <table className="plain">
            <tbody>
              {reader.touches.map(({ channel, template, at: leaves, says }, i) => (
                <tr key={`${template} ${i}`}>
                  <td css={placed({ whiteSpace: 'nowrap', paddingLeft: 0 })}>
                    <span aria-hidden>{CHANNEL_GLYPHS[channel]}</span> {template}
                  </td>
                  <td className={leaves === null ? 'quiet' : 'strong'} css={placed({ whiteSpace: 'nowrap' })}>
                    {leaves === null ? 'not for them' : dayTimeText(leaves, reader.zone)}
                  </td>
                  <td className="quiet small">{says.join('; ')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      ) : (
        <p className="quiet">Nobody with an e-mail address is known yet.</p>
      )}
    </section>
  );
}
