/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { ago } from '../../kit/format';
import { PutInFlow, type FlowName } from '../../client/PutInFlow';
import { Empty, Said, TopBar, type SaidText } from '../../kit/parts';
import { placed } from '../../kit/placed';

export interface DealRow {
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
}
interface Props {
  readonly pipelines: readonly { readonly name: string; readonly stages: readonly string[] }[];
  readonly deals: readonly DealRow[];
  /** how many there are in all: only the newest are shown */
  readonly total: number;
  /** flows about deals that these can be put in */
  readonly flows: readonly FlowName[];
  readonly now: number;
  readonly mayChange: boolean;
}

/** Deals by stage, the longest silent first; a deal is moved by choosing its stage. */
export function Pipeline({ pipelines, deals, total, flows, now, mayChange }: Props) {
  const router = useRouter();
  const [said, setSaid] = useState<SaidText | null>(null);
  const move = (id: string, stage: string): void => {
    call('changeDeal', { params: { id }, body: { stage } }).then(
      () => {
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
        title="Pipeline"
        tags={
          <span className="quiet">
            {total > deals.length ? `the ${deals.length} newest of ${plural(total, 'deal')}` : plural(total, 'deal')}
          </span>
        }
      >
        <Button component={Link} href="/pipeline/stages">
          Stages
        </Button>
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <div className="cols" css={placed({ overflow: 'auto' })}>
        {deals.length === 0 ? (
          <Empty title="No deal yet">A flow opens deals with “open deal in …”, or the API does. They stand here by stage.</Empty>
        ) : (
          pipelines.flatMap((pipeline) =>
            pipeline.stages.map((stage) => {
              const here = deals
                .filter((deal) => deal.pipeline === pipeline.name && deal.stage === stage)
                .sort((a, b) => a.stageSince - b.stageSince);
              return (
                <section
                  key={`${pipeline.name} ${stage}`}
                  className="col"
                  css={placed({ flex: '1 1 200px', minWidth: 190 })}
                  aria-label={stage}
                >
                  <div className="bar ruled">
                    <h2 className="grow">{stage}</h2>
                    <span className="quiet">{here.length}</span>
                    {flows.length > 0 && here.some((deal) => deal.personId !== null) ? (
                      <PutInFlow
                        label="In a flow"
                        flows={flows}
                        recordIds={here.filter((deal) => deal.personId !== null).map((deal) => deal.id)}
                        say={({ started, already }, flow) =>
                          `${plural(started, 'deal is', 'deals are')} on the way through ${flow.name}${already > 0 ? `; ${already} were in it already` : ''}.`
                        }
                        onSaid={setSaid}
                      />
                    ) : null}
                  </div>
                  {here.map((deal) => (
                    <article
                      key={deal.id}
                      css={placed({
                        margin: 8,
                        padding: '8px 10px',
                        background: 'var(--paper)',
                        border: '1px solid var(--line)',
                        borderRadius: 4,
                      })}
                    >
                      <div className="strong">
                        <Link href={`/pipeline/${deal.id}`}>{deal.title}</Link>
                      </div>
                      <div className="quiet small">
                        <WithWhom deal={deal} /> · {ago(deal.stageSince, now)} here
                        {deal.amount === null ? '' : ` · ${deal.amount.toLocaleString('en-GB')}\u00a0€`}
                      </div>
                      <div className="quiet small">{deal.ownerName ?? 'nobody looks after it'}</div>
                      {mayChange ? (
                        // The browser's own list: two hundred of the other kind take the server most of the page's time.
                        <select
                          className="plain"
                          value={deal.stage}
                          aria-label={`Stage of ${deal.title}, ${deal.personName ?? ''}`}
                          onChange={(event) => {
                            move(deal.id, event.target.value);
                          }}
                        >
                          {pipeline.stages.map((to) => (
                            <option key={to} value={to}>
                              {to}
                            </option>
                          ))}
                        </select>
                      ) : null}
                    </article>
                  ))}
                </section>
              );
            }),
          )
        )}
      </div>
    </>
  );
}

/** Whom a deal is with: somebody, a firm where nobody of it is known, or nobody. */
function WithWhom({ deal }: { readonly deal: DealRow }) {
  if (deal.personId) return <Link href={`/records/people/${deal.personId}`}>{deal.personName}</Link>;
  if (deal.companyId) return <Link href={`/records/companies/${deal.companyId}`}>{deal.companyName}</Link>;
  return 'with nobody';
}
