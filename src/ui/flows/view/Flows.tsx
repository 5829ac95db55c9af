/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { freeName, plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { countText, euro } from '../../kit/format';
import { Empty, GoRow, Problem, TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { LiveTag, type LiveState } from './LiveTag';

export interface FlowListRow {
  readonly id: string;
  readonly name: string;
  readonly live: LiveState | null;
  readonly lines: number;
  readonly counts: {
    readonly underWay: number;
    readonly asking: number;
    readonly stuck: number;
    readonly done: number;
    readonly stopped: number;
    readonly costMicro: number;
  } | null;
  readonly costAllMicro: number;
}

/** All flows with what is under way and what they cost. */
export function Flows({
  flows,
  zone,
  mayEdit,
}: {
  readonly flows: readonly FlowListRow[];
  readonly zone: string;
  readonly mayEdit: boolean;
}) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const make = (): void => {
    const name = freeName(
      'New flow',
      flows.map((flow) => flow.name),
    );
    call('createFlow', { body: { text: `flow "${name}"\nabout person\n\ntake in from hand\n` } }).then(
      (flow) => {
        router.push(`/flows/${flow.id}`);
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  return (
    <>
      <TopBar title="Flows" tags={<span className="quiet">what is to happen to records, as lines of text</span>}>
        {mayEdit ? (
          <>
            <Button component={Link} href="/flows/from-file">
              From a file …
            </Button>
            <Button variant="contained" onClick={make}>
              New flow
            </Button>
          </>
        ) : null}
      </TopBar>
      <Problem
        says={problem}
        onClose={() => {
          setProblem(null);
        }}
      />
      <div className="cols">
        <section className="col paper grow">
          {flows.length === 0 ? (
            <Empty title="No flow yet">
              A flow reads aloud as instructions: take in, keep, read, score, write, ask, follow up. Begin one with “New flow”.
            </Empty>
          ) : (
            <table className="plain">
              <thead>
                <tr>
                  <th>flow</th>
                  <th>version</th>
                  <th className="right">lines</th>
                  <th className="right">under way</th>
                  <th className="right">asking</th>
                  <th className="right">stuck</th>
                  <th className="right">stopped</th>
                  <th className="right">done</th>
                  <th className="right">cost today</th>
                  <th className="right">cost in all</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {flows.map((flow) => (
                  <GoRow key={flow.id} href={`/flows/${flow.id}`}>
                    <td>
                      <Link href={`/flows/${flow.id}`} className="strong" css={placed({ textDecoration: 'none' })}>
                        {flow.name}
                      </Link>
                    </td>
                    <td>
                      <LiveTag live={flow.live} zone={zone} />
                    </td>
                    <td className="right">{flow.lines}</td>
                    <td className="right strong">{countText(flow.counts?.underWay ?? 0)}</td>
                    <td className={`right ${(flow.counts?.asking ?? 0) > 0 ? 'in-brass strong' : ''}`}>
                      {countText(flow.counts?.asking ?? 0)}
                    </td>
                    <td className={`right ${(flow.counts?.stuck ?? 0) > 0 ? 'in-brick strong' : ''}`}>
                      {countText(flow.counts?.stuck ?? 0)}
                    </td>
                    <td className="right">{countText(flow.counts?.stopped ?? 0)}</td>
                    <td className="right">{countText(flow.counts?.done ?? 0)}</td>
                    <td className="right">{euro(flow.counts?.costMicro ?? 0)}</td>
                    <td className="right strong">{euro(flow.costAllMicro)}</td>
                    <td className="right">
                      <Link
                        href={`/flows/${flow.id}/trips`}
                        onClick={(event) => {
                          event.stopPropagation();
                        }}
                      >
                        trips
                      </Link>
                    </td>
                  </GoRow>
                ))}
              </tbody>
            </table>
          )}
          <p className="quiet" css={placed({ padding: '12px 16px' })}>
            {plural(flows.length, 'flow')} · costs count what providers were paid; reading sites costs nothing.
          </p>
        </section>
      </div>
    </>
  );
}
