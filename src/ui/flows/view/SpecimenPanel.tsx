/** @jsxImportSource @emotion/react */
'use client';
import { plural } from '../../../core/base';
import { euro } from '../../kit/format';
import Link from '../../kit/Link';
import { Empty, Tag } from '../../kit/parts';
import { entryAt, lineTable } from '../state/specimen';
import type { ScriptRow } from '../state/script';
import type { Trial } from '../state/types';
import { AtLine } from './AtLine';
import { LineHead } from './LineHead';
import { placed } from '../../kit/placed';

interface Props {
  readonly row: ScriptRow | undefined;
  readonly trial: Trial;
  readonly before: Trial | undefined;
  readonly at: number;
  readonly onMove: (at: number) => void;
  /** the trial was of another text than the one shown */
  readonly stale: boolean;
  readonly mayTry: boolean;
  readonly onAfresh: () => void;
}

/** The chosen specimen at the chosen line above, all specimens at that line below. */
export function SpecimenPanel({ row, trial, before, at, onMove, stale, mayTry, onAfresh }: Props) {
  const trip = trial.trips[at];
  if (!row || !trip)
    return <Empty title="Choose a line">The specimen at that line stands here: what went in, what came out, and why.</Empty>;
  const isArm = row.kind === 'arm';
  const mark = isArm ? row.splitMark : row.mark;
  const entry = entryAt(trip, mark);
  const verb = row.kind === 'line' ? row.line.step.verb : 'split';
  const table = lineTable(verb, mark, trial, before);
  const took = entry?.detail.arm;
  return (
    <>
      <div className="bar ruled small" css={placed({ height: 32, gap: 6 })}>
        <span className="quiet cut grow" title="What lookups of this trial have cost, and what they may cost at most">
          trial of {plural(trial.trips.length, 'specimen')} · {euro(trial.costMicro)} of at most {euro(trial.limitMicro)}
          {trial.reused > 0 ? ` · ${plural(trial.reused, 'answer')} from before` : ''}
        </span>
        {trial.reused > 0 && mayTry ? (
          <button className="linkish" onClick={onAfresh} title="Reads every site and asks every provider again (Shift T)">
            run afresh
          </button>
        ) : null}
      </div>
      <section css={placed({ padding: '8px 16px 12px', background: 'var(--paper)' })} aria-label="Specimen">
        <LineHead row={row}>
          {stale ? (
            <span css={placed({ marginLeft: 'auto', flex: 'none' })}>
              <Tag tone="brass" title="The draft was changed after this trial">
                before your change
              </Tag>
            </span>
          ) : null}
        </LineHead>
        <WhichSpecimen trip={trip} at={at} of={trial.trips.length} onMove={onMove} />
        {!entry ? (
          <NotHere trip={trip} />
        ) : isArm ? (
          <p>{took === row.mark ? 'took this arm' : 'went another way'}</p>
        ) : (
          <AtLine trip={trip} entry={entry} verb={verb} />
        )}
      </section>
      <AllAtLine
        table={table}
        chosen={trip.id}
        compared={before !== undefined}
        onChoose={(other) => {
          onMove(trial.trips.indexOf(other));
        }}
      />
    </>
  );
}

function NotHere({ trip }: { readonly trip: Trial['trips'][number] }) {
  const last = trip.journal.at(-1);
  return (
    <p className="quiet">
      {trip.title} did not get to this line{last ? `: ${last.says}` : trip.state === 'ready' ? ' yet' : ''}.
    </p>
  );
}

interface WhichProps {
  readonly trip: Trial['trips'][number];
  readonly at: number;
  readonly of: number;
  readonly onMove: (at: number) => void;
}
function WhichSpecimen({ trip, at, of, onMove }: WhichProps) {
  return (
    <div
      css={placed({
        display: 'flex',
        alignItems: 'center',
        gap: 8,
        height: 30,
        borderBottom: '1px solid var(--line2)',
        marginBottom: 8,
      })}
    >
      <button
        className="linkish"
        onClick={() => {
          onMove(at - 1);
        }}
        disabled={at === 0}
        aria-label="Specimen before ( [ )"
      >
        ‹
      </button>
      <Link href={`/records/people/${trip.personId}`} className="strong" css={placed({ fontSize: 15 })}>
        {trip.title}
      </Link>
      <span className="quiet cut grow">{trip.companyName}</span>
      <span className="quiet" css={placed({ flex: 'none' })}>
        {at + 1} of {of}
      </span>
      <button
        className="linkish"
        onClick={() => {
          onMove(at + 1);
        }}
        disabled={at >= of - 1}
        aria-label="Next specimen ( ] )"
      >
        ›
      </button>
    </div>
  );
}

interface AllProps {
  readonly table: ReturnType<typeof lineTable>;
  readonly chosen: string;
  /** there was a trial before */
  readonly compared: boolean;
  readonly onChoose: (trip: Trial['trips'][number]) => void;
}
function AllAtLine({ table, chosen, compared, onChoose }: AllProps) {
  return (
    <section aria-label="All specimens at this line">
      <div className="bar ruled" css={placed({ borderTop: '1px solid var(--line)' })}>
        <h2 className="grow">All {table.rows.length} at this line</h2>
        <span className="quiet">
          {compared ? (table.differ === 0 ? 'as in the trial before' : `${table.differ} differ from the trial before`) : ''}
        </span>
      </div>
      <table className="plain" css={placed({ background: 'var(--paper)', tableLayout: 'fixed' })}>
        <colgroup>
          <col css={placed({ width: 126 })} />
          <col css={placed({ width: 100 })} />
          {table.columns.map((column) => (
            <col key={column.label} css={placed(column.right ? { width: 58 } : column.label === 'band' ? { width: 70 } : {})} />
          ))}
          <col css={placed({ width: table.differ > 0 ? 92 : 16 })} />
        </colgroup>
        <thead>
          <tr>
            <th>name</th>
            <th>company</th>
            {table.columns.map((column) => (
              <th key={column.label} className={column.right ? 'right' : ''}>
                {column.label}
              </th>
            ))}
            <th aria-label="differs" />
          </tr>
        </thead>
        <tbody>
          {table.rows.map(({ trip: other, cells, was }) => (
            <tr
              key={other.id}
              className={`go ${other.id === chosen ? 'on' : ''}`}
              onClick={() => {
                onChoose(other);
              }}
            >
              <td className="cut">{other.title}</td>
              <td className="cut">{other.companyName}</td>
              {cells.map((cell, i) => (
                <td key={i} className={`cut ${cell.right ? 'right' : ''} ${cell.tone ? `in-${cell.tone}` : ''}`} title={cell.text}>
                  {cell.text}
                </td>
              ))}
              <td className="right">{was ? <Tag>{was}</Tag> : null}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {table.rows.length === 0 ? (
        <p className="quiet" css={placed({ padding: '10px 16px' })}>
          No specimen got here.
        </p>
      ) : null}
    </section>
  );
}
