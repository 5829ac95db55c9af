'use client';
import { Button, Menu, MenuItem } from '@mui/material';
import Link from '../../kit/Link';
import { usePathname, useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { call, sayProblem } from '../../client';
import { clockText, countText, dayText } from '../../kit/format';
import { THEME_KEY } from '../../kit/Kit';
import { Problem } from '../../kit/parts';
import { useLiveRefresh } from './useLiveRefresh';

export interface RailView {
  readonly desk: number;
  readonly sources: number;
  readonly flows: number;
  readonly records: number;
  readonly deals: number;
  readonly pairs: number;
  readonly sentToday: number;
  readonly now: number;
  readonly zone: string;
  readonly movable: boolean;
  readonly target: number | null;
  readonly userName: string;
  readonly userTitle: string;
}

export interface TroubleView {
  readonly says: string;
  readonly todo: string;
  readonly href: string | null;
}
interface Props {
  readonly rail: RailView;
  readonly troubles: readonly TroubleView[];
  readonly children: ReactNode;
}

const DAY_MS = 86_400_000;

/** The rail and everything around a page: counts, who is signed in, and the demo's clock. */
export function Shell({ rail, troubles, children }: Props) {
  const path = usePathname();
  const router = useRouter();
  const [folded, setFolded] = useState(false);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const walking = rail.target !== null;
  useLiveRefresh(path);
  const link = (href: string, label: string, count: ReactNode, needsYou = false) => (
    <Link href={href} className={path === href || (href !== '/' && path.startsWith(href)) ? 'on' : ''} title={folded ? label : undefined}>
      <span className="label">{label}</span>
      {folded ? <span aria-hidden>{label.slice(0, 2)}</span> : null}
      <span className={`count ${needsYou ? 'now' : ''}`}>{typeof count === 'number' ? countText(count) : count}</span>
    </Link>
  );
  const move = (days: number) => {
    setMenu(null);
    call('moveClock', { body: { byMs: days * DAY_MS } }).then(
      () => {
        router.refresh();
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  const flipTheme = () => {
    const next = document.documentElement.dataset.theme === 'dark' ? 'light' : 'dark';
    document.documentElement.dataset.theme = next;
    localStorage.setItem(THEME_KEY, next);
    setMenu(null);
  };
  return (
    <div className="shell">
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
        {link('/', 'Desk', rail.desk > 0 ? rail.desk : '', true)}
        {link('/sources', 'Sources', rail.sources > 0 ? `${rail.sources} new` : '')}
        {link('/flows', 'Flows', rail.flows > 0 ? rail.flows : '')}
        {link('/records', 'Records', rail.records)}
        {link('/pipeline', 'Pipeline', rail.deals > 0 ? rail.deals : '')}
        {link('/openings', 'Openings', '')}
        {link('/scorecards', 'Scorecards', '')}
        {link('/duplicates', 'Duplicates', rail.pairs > 0 ? rail.pairs : '', true)}
        {link('/lookups', 'Lookups', '')}
        {link('/messages', 'Messages', rail.sentToday > 0 ? `${rail.sentToday} today` : '')}
        <span className="grow" />
        {link('/settings', 'Settings', '')}
        <div className="who">
          <button
            onClick={(event) => {
              setMenu(event.currentTarget);
            }}
          >
            {rail.userName}
          </button>
          <div>
            {dayText(rail.now, rail.zone)}, {clockText(rail.now, rail.zone)}
          </div>
          {walking ? (
            <div className="in-brass" role="status">
              clock goes on to {dayText(rail.target, rail.zone)} …
            </div>
          ) : null}
          {rail.movable ? (
            <Button
              size="small"
              sx={{ mt: 0.5, mb: 0.5, height: 26, fontSize: 12 }}
              disabled={walking}
              onClick={() => {
                move(1);
              }}
            >
              One day later
            </Button>
          ) : null}
        </div>
      </nav>
      <Menu
        anchorEl={menu}
        open={menu !== null}
        onClose={() => {
          setMenu(null);
        }}
      >
        {rail.movable
          ? [3, 14].map((days) => (
              <MenuItem
                key={days}
                onClick={() => {
                  move(days);
                }}
              >
                {days} days later
              </MenuItem>
            ))
          : null}
        <MenuItem component={Link} href="/account">
          My account
        </MenuItem>
        <MenuItem onClick={flipTheme}>Dark or light</MenuItem>
        <MenuItem component="a" href="/api/v1/openapi.json">
          API description
        </MenuItem>
        <MenuItem
          onClick={() => {
            void fetch('/session', { method: 'DELETE' }).then(() => {
              window.location.href = '/sign-in';
            });
          }}
        >
          Sign out
        </MenuItem>
      </Menu>
      <main className="main">
        <Troubles troubles={troubles.filter((trouble) => trouble.href !== path)} />
        <Problem
          says={problem}
          onClose={() => {
            setProblem(null);
          }}
        />
        {children}
      </main>
    </div>
  );
}

/** What around us does not answer, on every page; more than one is counted and opened. */
function Troubles({ troubles }: { readonly troubles: readonly TroubleView[] }) {
  const [open, setOpen] = useState(false);
  if (troubles.length === 0) return null;
  const shown = open ? troubles : troubles.slice(0, 1);
  return (
    <div role="status" aria-label="What does not answer">
      {shown.map((trouble) => (
        <div key={trouble.says} className="notice">
          <span className="grow">
            <span className="strong">■ {trouble.says}</span> {trouble.todo}{' '}
            {trouble.href === null ? null : <Link href={trouble.href}>Open it</Link>}
          </span>
          {trouble === shown[0] && troubles.length > 1 ? (
            <button
              className="linkish"
              onClick={() => {
                setOpen(!open);
              }}
            >
              {open ? 'show one' : `${troubles.length - 1} more`}
            </button>
          ) : null}
        </div>
      ))}
    </div>
  );
}
