/** @jsxImportSource @emotion/react */
import { Button } from '@mui/material';
import type { ReactNode } from 'react';
import { useShortcuts } from '../../kit/keys';
import { placed } from '../../kit/placed';

/** What every opened row is given. */
export interface DecisionProps {
  readonly now: number;
  readonly zone: string;
  readonly mayDecide: boolean;
  readonly mayDealWithTrips: boolean;
  /** takes the row away at once and brings it back when the server refuses */
  readonly decide: (work: Promise<unknown>) => void;
}

export const Body = ({ children }: { readonly children: ReactNode }) => (
  <div css={placed({ padding: '2px 16px 14px 41px', display: 'flex', flexDirection: 'column', gap: 10 })}>{children}</div>
);

interface Deed {
  readonly key: string;
  readonly label: string;
  readonly main?: boolean;
  readonly run: () => void;
}

/** The decisions of a row, each with its key. Keys work while no text is being typed. */
export function Deeds({ deeds, off, children }: { readonly deeds: readonly Deed[]; readonly off: boolean; readonly children?: ReactNode }) {
  useShortcuts(Object.fromEntries(deeds.map((deed) => [deed.key, deed.run])), off);
  if (off) return <p className="quiet">Your role may look, not decide.</p>;
  return (
    <div css={placed({ display: 'flex', gap: 8, flexWrap: 'wrap' })}>
      {deeds.map((deed) => (
        <Button key={deed.key} variant={deed.main ? 'contained' : 'outlined'} onClick={deed.run}>
          {deed.label}{' '}
          <kbd
            aria-hidden
            css={placed(deed.main ? { background: 'transparent', color: '#fff', borderColor: 'rgb(255 255 255 / 55%)' } : {})}
          >
            {deed.key.toUpperCase()}
          </kbd>
        </Button>
      ))}
      {children}
    </div>
  );
}

export const Card = ({ head, children }: { readonly head: ReactNode; readonly children: ReactNode }) => (
  <div
    css={placed({
      flex: 1,
      minWidth: 0,
      background: 'var(--paper)',
      border: '1px solid var(--line)',
      borderRadius: 4,
      padding: 12,
      display: 'flex',
      flexDirection: 'column',
      gap: 8,
    })}
  >
    <div className="quiet small">{head}</div>
    {children}
  </div>
);
