/** @jsxImportSource @emotion/react */
'use client';
import Link from '../../kit/Link';
import { useEffect, useState } from 'react';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { countText, euro } from '../../kit/format';
import { Empty, Notice } from '../../kit/parts';
import type { RowFigures, ScriptRow } from '../state/script';
import { LineHead } from './LineHead';
import { StateTag } from './Trips';
import { placed } from '../../kit/placed';

interface TripRow {
  readonly id: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly state: string;
  readonly says: string | null;
  readonly costMicro: number;
}

/** Live trips at the chosen line: how many got there, what became of them, and the newest ones by name. */
export function LiveAtLine({
  flowId,
  row,
  figures,
}: {
  readonly flowId: string;
  readonly row: ScriptRow | undefined;
  readonly figures: RowFigures | undefined;
}) {
  const [trips, setTrips] = useState<readonly TripRow[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const mark = row?.kind === 'line' ? row.mark : undefined;
  useEffect(() => {
    if (mark === undefined) return;
    let current = true;
    setTrips(null);
    call('listTrips', { query: { flow: flowId, mark, limit: 50 } }).then(
      (page) => {
        if (current) setTrips(page.items);
      },
      (error: unknown) => {
        if (current) setProblem(sayProblem(error));
      },
    );
    return () => {
      current = false;
    };
  }, [flowId, mark]);
  if (!row) return <Empty title="Choose a line">What became of the trips that got there stands here.</Empty>;
  const by = Object.entries(figures?.by ?? {});
  return (
    <>
      <section css={placed({ padding: '8px 16px 12px', background: 'var(--paper)' })}>
        <LineHead row={row} />
        <p css={placed({ padding: '6px 0' })}>
          <span css={placed({ fontSize: 22, fontWeight: 640 })}>{countText(figures?.reached ?? 0)}</span>{' '}
          <span className="quiet">{figures?.reached === 1 ? 'trip' : 'trips'} got here</span>
        </p>
        {by.map(([outcome, count]) => (
          <div key={outcome} className="before-after">
            <span className="quiet">{outcome}</span>
            <span className="strong">{countText(count)}</span>
          </div>
        ))}
        <div className="before-after">
          <span className="quiet">cost here</span>
          <span className="strong">{euro(figures?.costMicro ?? 0)}</span>
        </div>
      </section>
      {problem ? <Notice>{problem}</Notice> : null}
      {mark === undefined ? null : (
        <section aria-label="Trips that got here">
          <div className="bar ruled" css={placed({ borderTop: '1px solid var(--line)' })}>
            <h2 className="grow">Trips that got here</h2>
            <span className="quiet">{trips ? (trips.length < 50 ? plural(trips.length, 'trip') : 'the newest 50') : 'looking …'}</span>
          </div>
          <table className="plain" css={placed({ background: 'var(--paper)', tableLayout: 'fixed' })}>
            <colgroup>
              <col css={placed({ width: '30%' })} />
              <col css={placed({ width: '23%' })} />
              <col />
              <col css={placed({ width: 108 })} />
            </colgroup>
            <tbody>
              {(trips ?? []).map((trip) => (
                <tr key={trip.id}>
                  <td className="cut">
                    <Link href={`/trips/${trip.id}`} className="strong">
                      {trip.personName}
                    </Link>
                  </td>
                  <td className="cut">{trip.companyName}</td>
                  <td className="cut quiet" title={trip.says ?? ''}>
                    {trip.says}
                  </td>
                  <td className="right">
                    <StateTag state={trip.state} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </>
  );
}
