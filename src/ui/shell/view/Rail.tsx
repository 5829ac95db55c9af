'use client';
import { Button } from '@mui/material';
import { usePathname } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import type { Answer } from '../../../api';
import { clockText, countText, dayText } from '../../kit/format';
import Link from '../../kit/Link';
import { AccountMenu } from './AccountMenu';

/** What the rail shows. */
export type RailView = Omit<Answer<'readRail'>, 'troubles'>;

interface Props {
  readonly rail: RailView;
  readonly name: string;
  readonly move: (days: number) => void;
}

/** Where everything is, with how much waits there; who is signed in, and the demo's clock. */
export function Rail({ rail, name, move }: Props) {
  const path = usePathname();
  const [folded, setFolded] = useState(false);
  const link = (href: string, label: string, count: ReactNode, needsYou = false) => (
    <Link href={href} className={path === href || (href !== '/' && path.startsWith(href)) ? 'on' : ''} title={folded ? label : undefined}>
      <span className="label">{label}</span>
      {folded ? <span aria-hidden>{label.slice(0, 2)}</span> : null}
      <span className={`count ${needsYou ? 'now' : ''}`}>{typeof count === 'number' ? countText(count) : count}</span>
    </Link>
  );
  const some = (count: number): ReactNode => (count > 0 ? count : '');
  return (
    <nav className={`rail ${folded ? 'folded' : ''}`} aria-label="Main">
      <button
        className="logo"
        onClick={() => {
          setFolded(!folded);
        }}
        aria-label={folded ? 'Unfold the rail' : 'Fold the rail'}
      >
        <svg width="20" height="18" viewBox="0 0 20 18" aria-hidden>
          <path d="M1 3c4 0 5 5 9 5s5-5 9-5" fill="none" stroke="var(--river)" strokeWidth="3" />
          <path d="M1 10c4 0 5 5 9 5s5-5 9-5" fill="none" stroke="var(--w3)" strokeWidth="3" />
        </svg>
        <span className="label">Millrace</span>
      </button>
      {link('/', 'Desk', some(rail.desk), true)}
      {link('/sources', 'Sources', rail.sources > 0 ? `${rail.sources} new` : '')}
      {link('/flows', 'Flows', some(rail.flows))}
      {link('/records', 'Records', rail.records)}
      {link('/pipeline', 'Pipeline', some(rail.deals))}
      {link('/openings', 'Openings', '')}
      {link('/scorecards', 'Scorecards', '')}
      {link('/duplicates', 'Duplicates', some(rail.pairs), true)}
      {link('/lookups', 'Lookups', '')}
      {link('/messages', 'Messages', rail.sentToday > 0 ? `${rail.sentToday} today` : '')}
      <span className="grow" />
      {link('/settings', 'Settings', '')}
      <div className="who">
        <AccountMenu name={name} move={rail.movable ? move : null} />
        <DemoClock rail={rail} move={move} />
      </div>
    </nav>
  );
}

/** What time it is here; in the demo, the way to let it go on. */
function DemoClock({ rail, move }: Pick<Props, 'rail' | 'move'>) {
  return (
    <>
      <div>
        {dayText(rail.now, rail.zone)}, {clockText(rail.now, rail.zone)}
      </div>
      {rail.target === null ? null : (
        <div className="in-brass" role="status">
          clock goes on to {dayText(rail.target, rail.zone)} …
        </div>
      )}
      {rail.movable ? (
        <Button
          size="small"
          sx={{ mt: 0.5, mb: 0.5, height: 26, fontSize: 12 }}
          disabled={rail.target !== null}
          onClick={() => {
            move(1);
          }}
        >
          One day later
        </Button>
      ) : null}
    </>
  );
}
