/** @jsxImportSource @emotion/react */
'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { sayProblem } from '../../client';
import { plural } from '../../../core/base';
import { ago } from '../../kit/format';
import { useShortcuts } from '../../kit/keys';
import { useSteady } from '../../kit/steady';
import Link from '../../kit/Link';
import { Empty, Problem, TopBar } from '../../kit/parts';
import { deskRows, sayOpen, sayRow, type DeskRow } from '../state/rows';
import type { DeskView } from '../state/types';
import { OpenRow } from './OpenRow';
import { Side, type LatelyView, type LiveFlow, type SendsView } from './Side';
import { placed } from '../../kit/placed';

const GLYPH: Record<DeskRow['kind'], { readonly glyph: string; readonly tone: string }> = {
  doubt: { glyph: '?', tone: 'in-plum' },
  reply: { glyph: '↩', tone: 'in-brass' },
  pair: { glyph: '◇', tone: 'in-brass' },
  task: { glyph: '☐', tone: 'in-river' },
  review: { glyph: '✎', tone: 'in-river' },
  stuck: { glyph: '■', tone: 'in-brick' },
  first: { glyph: '≋', tone: 'in-brass' },
  notice: { glyph: '✉', tone: 'in-river' },
};

interface Props {
  /** what is missing before work goes through */
  readonly missing: readonly string[];
  readonly desk: DeskView;
  readonly sends: SendsView;
  readonly flows: readonly LiveFlow[];
  readonly lately: LatelyView;
  readonly now: number;
  readonly mayDecide: boolean;
  readonly mayDealWithTrips: boolean;
}

/** What needs a person now, one decision per row; today's sends and the live flows beside it. */
export function Desk({ desk, missing, sends, flows, lately, now, mayDecide, mayDealWithTrips }: Props) {
  const router = useRouter();
  const [decided, setDecided] = useState<ReadonlySet<string>>(new Set());
  const [at, setAt] = useState<string | undefined>(undefined);
  const [open, setOpen] = useState(true);
  const [problem, setProblem] = useState<string | null>(null);
  const all = useMemo(() => deskRows(desk).filter((row) => !decided.has(row.id)), [desk, decided]);
  // Colleagues and workers go on meanwhile: the rows stay where they are until something is decided here.
  const { rows: kept, gone, fresh, take } = useSteady(all, (row) => row.id);
  const rows = kept.filter((row) => !decided.has(row.id));
  const chosen = Math.max(
    0,
    rows.findIndex((row) => row.id === at),
  );
  const choose = (index: number): void => {
    setAt(rows[Math.max(0, Math.min(rows.length - 1, index))]?.id);
  };

  useShortcuts({
    j: () => choose(chosen + 1),
    k: () => choose(chosen - 1),
    Enter: () => setOpen((value) => !value),
  });

  /** The row goes at once; when the server refuses, it comes back with the reason. */
  const decide = (row: DeskRow, work: Promise<unknown>): void => {
    const place = rows.findIndex((entry) => entry.id === row.id);
    const following = [...rows.slice(place + 1), ...rows.slice(0, place).reverse()].find((entry) => !gone.has(entry.id));
    setAt(following?.id);
    setDecided((before) => new Set([...before, row.id]));
    take();
    setProblem(null);
    work.then(
      () => {
        router.refresh();
      },
      (error: unknown) => {
        setDecided((before) => new Set([...before].filter((id) => id !== row.id)));
        setAt(row.id);
        setProblem(sayProblem(error));
      },
    );
  };

  return (
    <>
      <TopBar
        title="Desk"
        tags={
          <span className="quiet">
            {sayOpen(all)}
            {fresh > 0 ? (
              <>
                {' · '}
                <button className="linkish" onClick={take}>
                  show {plural(fresh, 'new one', 'new ones')}
                </button>
              </>
            ) : null}
          </span>
        }
      >
        <span className="quiet small keys">
          <kbd>J</kbd> <kbd>K</kbd> move · <kbd>Enter</kbd> open
        </span>
      </TopBar>
      <Problem
        says={problem}
        onClose={() => {
          setProblem(null);
        }}
      />
      <div className="cols">
        <section className="col paper grow" aria-label="Decisions">
          <Missing what={missing} />
          {rows.length === 0 && missing.length === 0 ? (
            <Empty title="All done">
              Messages to approve, doubtful pairs, stuck trips and answers stand here when there are any. Take in a list under Sources to
              see some.
            </Empty>
          ) : null}
          {rows.map((row, i) => (
            <Row
              key={row.id}
              row={row}
              now={now}
              settled={gone.has(row.id)}
              open={open && i === chosen}
              onOpen={() => {
                setOpen(i === chosen ? !open : true);
                setAt(row.id);
              }}
            >
              {open && i === chosen && !gone.has(row.id) ? (
                <OpenRow
                  now={now}
                  row={row}
                  zone={sends.zone}
                  mayDecide={mayDecide}
                  mayDealWithTrips={mayDealWithTrips}
                  decide={(work) => {
                    decide(row, work);
                  }}
                />
              ) : null}
            </Row>
          ))}
        </section>
        <aside className="col" css={placed({ width: 416, flex: 'none' })} aria-label="Today">
          <Side sends={sends} flows={flows} lately={lately} now={now} />
        </aside>
      </div>
    </>
  );
}

/** What work still waits for, where anything is missing. */
function Missing({ what }: { readonly what: readonly string[] }) {
  if (what.length === 0) return null;
  return (
    <p className="quiet" css={placed({ padding: '12px 24px', borderBottom: '1px solid var(--line)' })}>
      Missing before work goes through: {what.join(', ')}.{' '}
      <Link href="/first-day" className="strong">
        Go on with the letter of the first day
      </Link>
    </p>
  );
}

function Row({
  row,
  now,
  settled,
  open,
  onOpen,
  children,
}: {
  readonly row: DeskRow;
  readonly now: number;
  /** somebody else has dealt with it meanwhile */
  readonly settled: boolean;
  readonly open: boolean;
  readonly onOpen: () => void;
  readonly children: React.ReactNode;
}) {
  const { title, about, says } = sayRow(row);
  const { glyph, tone } = GLYPH[row.kind];
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (open) place.current?.scrollIntoView({ block: 'nearest' });
  }, [open]);
  return (
    <div
      ref={place}
      css={placed({
        borderBottom: '1px solid var(--line2)',
        borderLeft: `3px solid ${open ? 'var(--river)' : 'transparent'}`,
        background: open ? 'var(--chosen)' : undefined,
      })}
      data-kind={row.kind}
    >
      <button
        onClick={onOpen}
        aria-expanded={open}
        css={placed({
          display: 'flex',
          width: '100%',
          gap: 12,
          padding: '9px 16px 9px 13px',
          background: 'none',
          border: 0,
          textAlign: 'left',
          cursor: 'pointer',
          opacity: settled ? 0.5 : undefined,
        })}
      >
        <span className={tone} css={placed({ width: 16, textAlign: 'center' })} aria-hidden>
          {glyph}
        </span>
        <span className="grow">
          <span css={placed({ display: 'flex', gap: 10 })}>
            <span className="strong">{title}</span>
            <span className="quiet cut">{about}</span>
          </span>
          <span className="quiet small cut" css={placed({ display: 'block' })}>
            {settled ? 'settled meanwhile: nothing is left to do here' : says}
          </span>
        </span>
        <span className="quiet small">{ago(row.at, now)}</span>
      </button>
      {children}
    </div>
  );
}
