/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, sayProblem } from '../../client';
import { ago, dayText } from '../../kit/format';
import Link from '../../kit/Link';
import { Said, TopBar, type SaidText } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { Known } from './Known';
import './records.css';
import { timeline } from '../state/group';
import type { Happening, KnownField } from '../state/types';
import { Timeline } from './Timeline';

interface Props {
  readonly deal: {
    readonly id: string;
    readonly title: string;
    readonly pipeline: string;
    readonly stage: string;
    readonly amount: number | null;
    readonly personId: string | null;
    readonly personName: string | null;
    readonly companyId: string | null;
    readonly companyName: string | null;
    readonly ownerName: string | null;
    readonly stageSince: number;
    readonly createdAt: number;
  };
  readonly known: readonly KnownField[];
  /** with the person it is with */
  readonly happened: readonly Happening[];
  /** of its pipeline, in their order */
  readonly stages: readonly string[];
  readonly now: number;
  readonly zone: string;
  readonly mayChange: boolean;
}

/** One deal: where it stands, what is known of it and from where, whose it is. */
export function DealPage({ deal, known, happened, stages, now, zone, mayChange }: Props) {
  const router = useRouter();
  const [said, setSaid] = useState<SaidText | null>(null);
  const move = (stage: string): void => {
    call('changeDeal', { params: { id: deal.id }, body: { stage } }).then(
      () => {
        setSaid({ calm: true, text: `At ${stage} now.` });
        router.refresh();
      },
      (error: unknown) => {
        setSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  return (
    <>
      <TopBar
        path={<Link href="/pipeline">Pipeline</Link>}
        title={deal.title}
        tags={<span className="quiet">{deal.amount === null ? 'no amount yet' : `${deal.amount.toLocaleString('en-GB')} €`}</span>}
      />
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <div className="cols">
        <section className="col paper" css={placed({ flex: '0 0 430px' })}>
          <Known known={known} of={[{ record: 'deal', id: deal.id }]} now={now} mayChange={mayChange} />
        </section>
        <section className="col" css={placed({ flex: '1 1 384px' })}>
          <Timeline items={timeline(happened, [], deal.personName ?? deal.title)} now={now} zone={zone} noteOn={undefined} />
        </section>
        <section className="col paper" css={placed({ flex: '0 0 290px' })} aria-label="Where it stands">
          <div className="bar">
            <h2>Where it stands</h2>
          </div>
          <div className="next-block">
            {mayChange && stages.includes(deal.stage) ? (
              <TextField
                select
                label={`Stage in ${deal.pipeline}`}
                value={deal.stage}
                css={placed({ minWidth: 240 })}
                onChange={(event) => {
                  move(event.target.value);
                }}
              >
                {stages.map((stage) => (
                  <MenuItem key={stage} value={stage}>
                    {stage}
                  </MenuItem>
                ))}
              </TextField>
            ) : (
              <span className="strong">{deal.stage}</span>
            )}
            <p className="quiet">
              there since {dayText(deal.stageSince, zone)}, {ago(deal.stageSince, now)}; opened {dayText(deal.createdAt, zone)}
            </p>
          </div>
          <div className="next-block">
            <div className="strong">With</div>
            {deal.personId ? (
              <Link href={`/records/people/${deal.personId}`}>{deal.personName}</Link>
            ) : (
              <span className="quiet">nobody</span>
            )}
            {deal.companyId ? (
              <>
                {' · '}
                <Link href={`/records/companies/${deal.companyId}`}>{deal.companyName}</Link>
              </>
            ) : null}
            <p className="quiet">{deal.ownerName ? `${deal.ownerName} looks after it` : 'nobody looks after it'}</p>
          </div>
        </section>
      </div>
    </>
  );
}
