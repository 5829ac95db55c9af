/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, TextField } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { ago, dayTimeText, euro } from '../../kit/format';
import { GoRow, Said, Tag, TopBar, type SaidText, type Tone } from '../../kit/parts';
import { SteadyBody } from '../../kit/SteadyBody';
import { FlowControls } from './FlowControls';
import './flows.css';
import { StuckGroups, type StuckGroup } from './StuckGroups';
import { placed } from '../../kit/placed';

export interface TripRow {
  readonly id: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly versionNo: number | null;
  readonly state: string;
  readonly says: string | null;
  readonly dueAt: number | null;
  readonly createdAt: number;
  readonly endedAt: number | null;
  readonly costMicro: number;
  readonly line: number | null;
}

export const TRIP_STATES: readonly { readonly state: string; readonly tone: Tone; readonly glyph: string }[] = [
  { state: 'ready', tone: 'river', glyph: '≋' },
  { state: 'waiting', tone: 'river', glyph: '◷' },
  { state: 'asking', tone: 'brass', glyph: '○' },
  { state: 'following', tone: 'river', glyph: '→' },
  { state: 'stuck', tone: 'brick', glyph: '■' },
  { state: 'done', tone: 'moss', glyph: '✓' },
  { state: 'stopped', tone: 'plain', glyph: '◂' },
];

export function StateTag({ state }: { readonly state: string }) {
  const known = TRIP_STATES.find((entry) => entry.state === state);
  return (
    <Tag tone={known?.tone ?? 'plain'}>
      {known?.glyph} {state}
    </Tag>
  );
}

interface Props {
  readonly flow: {
    readonly id: string;
    readonly name: string;
    readonly paused: boolean;
    readonly underWay: number;
    readonly older: number;
  };
  readonly trips: readonly TripRow[];
  readonly next: string | null;
  readonly state: string | undefined;
  readonly now: number;
  readonly zone: string;
  readonly counts: Readonly<Record<string, number>>;
  readonly groups: readonly StuckGroup[];
  readonly lines: readonly { readonly mark: string; readonly label: string }[];
  readonly mark: string | undefined;
  readonly mayControl: boolean;
  readonly mayDealWithTrips: boolean;
}

/** All trips of a flow: where each is, since when, what comes next and what it cost. */
export function Trips({ flow, trips, next, state, now, zone, counts, groups, lines, mark, mayControl, mayDealWithTrips }: Props) {
  const router = useRouter();
  const [said, setSaid] = useState<SaidText | null>(null);
  const href = (to: string | undefined, at = mark): string => {
    const query = new URLSearchParams({ ...(to && { state: to }), ...(at && { mark: at }) }).toString();
    return `/flows/${flow.id}/trips${query === '' ? '' : `?${query}`}`;
  };
  return (
    <>
      <TopBar
        path={<Link href={`/flows/${flow.id}`}>{flow.name}</Link>}
        title="Trips"
        tags={
          flow.paused ? (
            <Tag tone="brass">◷ rests: nothing is worked off or sent</Tag>
          ) : (
            <span className="quiet">each is one record’s way through the flow</span>
          )
        }
      >
        {mayControl ? (
          <FlowControls flowId={flow.id} paused={flow.paused} underWay={flow.underWay} older={flow.older} onSaid={setSaid} />
        ) : null}
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <div className="cols">
        <section className="col paper grow">
          <div className="bar ruled" css={placed({ paddingTop: 0, paddingBottom: 0 })}>
            <div className="tabs">
              <Link className={state === undefined ? 'on' : ''} href={href(undefined)}>
                all
              </Link>
              {TRIP_STATES.map((entry) => (
                <Link key={entry.state} className={state === entry.state ? 'on' : ''} href={href(entry.state)}>
                  {entry.state}{' '}
                  {(counts[entry.state] ?? 0) > 0 ? (
                    <span className="quiet num">{(counts[entry.state] ?? 0).toLocaleString('en-GB')}</span>
                  ) : null}
                </Link>
              ))}
            </div>
            <span className="grow" />
            <TextField
              select
              value={mark ?? ''}
              onChange={(event) => {
                router.push(href(state, event.target.value || undefined));
              }}
              css={placed({ width: 230 })}
              slotProps={{ htmlInput: { 'aria-label': 'At which line' }, select: { displayEmpty: true } }}
            >
              <MenuItem value="">at any line</MenuItem>
              {lines.map((line) => (
                <MenuItem key={line.mark} value={line.mark}>
                  {line.label}
                </MenuItem>
              ))}
            </TextField>
          </div>
          <StuckGroups groups={groups} may={mayDealWithTrips} onSaid={setSaid} />
          <table className="plain">
            <thead>
              <tr>
                <th>person</th>
                <th>company</th>
                <th>state</th>
                <th className="right">line</th>
                <th>last word</th>
                <th>next</th>
                <th className="right">version</th>
                <th className="right">cost</th>
                <th className="right">begun</th>
              </tr>
            </thead>
            <SteadyBody items={trips} idOf={(trip) => trip.id}>
              {(trip) => (
                <GoRow key={trip.id} href={`/trips/${trip.id}`}>
                  <td>
                    <Link href={`/trips/${trip.id}`} className="strong" css={placed({ textDecoration: 'none' })}>
                      {trip.personName}
                    </Link>
                  </td>
                  <td className="cut" css={placed({ maxWidth: 170 })}>
                    {trip.companyName}
                  </td>
                  <td>
                    <StateTag state={trip.state} />
                  </td>
                  <td className="right">{trip.line ?? '–'}</td>
                  <td className="cut quiet" css={placed({ maxWidth: 260 })} title={trip.says ?? ''}>
                    {trip.says}
                  </td>
                  <td className="quiet">{trip.dueAt === null || trip.endedAt !== null ? '' : dayTimeText(trip.dueAt, zone)}</td>
                  <td className="right quiet">live {trip.versionNo}</td>
                  <td className="right">{euro(trip.costMicro)}</td>
                  <td className="right quiet">{ago(trip.createdAt, now)}</td>
                </GoRow>
              )}
            </SteadyBody>
          </table>
          {trips.length === 0 ? (
            <p className="empty">{state ? `No trip is ${state} now.` : 'No trip yet: take in a list and start this flow with it.'}</p>
          ) : (
            <p className="quiet" css={placed({ padding: '10px 16px' })}>
              {plural(trips.length, 'trip')} shown{' '}
              {next ? (
                <Link href={`${href(state)}${state || mark ? '&' : '?'}cursor=${encodeURIComponent(next)}`}>· older ones</Link>
              ) : null}
            </p>
          )}
        </section>
      </div>
    </>
  );
}
