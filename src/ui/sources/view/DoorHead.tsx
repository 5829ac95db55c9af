'use client';
import { Switch } from '@mui/material';
import type { ReactNode } from 'react';
import Link from '../../kit/Link';
import { Said, Tag, TopBar, type SaidText } from '../../kit/parts';

/** What every door tells of itself. */
export interface DoorView {
  readonly id: string;
  readonly name: string;
  readonly isOn: boolean;
  readonly lastAt: number | null;
  readonly taken: number;
  readonly refused: number;
  /** names of the flows that it begins */
  readonly flows: readonly string[];
}

/** The head of a door's page: whether it is open, what came through it, and what can be done with it. */
export function DoorHead({
  door,
  told,
  said,
  first,
  children,
  onSwitch,
  onSaid,
}: {
  readonly door: Pick<DoorView, 'name' | 'isOn' | 'flows'>;
  /** what came and when, in words */
  readonly told: string;
  readonly said: SaidText | null;
  /** stands before the switch */
  readonly first?: ReactNode;
  readonly children?: ReactNode;
  /** undefined: who looks may not switch it */
  readonly onSwitch: ((isOn: boolean) => void) | undefined;
  readonly onSaid: (said: SaidText | null) => void;
}) {
  return (
    <>
      <TopBar
        path={<Link href="/sources">Sources</Link>}
        title={door.name}
        tags={
          <>
            <Tag tone={door.isOn ? 'moss' : 'plain'}>{door.isOn ? '✓ on' : '○ off'}</Tag>
            <span className="quiet cut">
              {told}
              {door.flows.length === 0 ? ' · begins no flow' : ` · begins ${door.flows.join(', ')}`}
            </span>
          </>
        }
      >
        {first}
        {onSwitch ? (
          <>
            <label className="on-off">
              <Switch
                checked={door.isOn}
                onChange={(event) => {
                  onSwitch(event.target.checked);
                }}
              />
              {door.isOn ? 'on' : 'off'}
            </label>
            {children}
          </>
        ) : null}
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          onSaid(null);
        }}
      />
    </>
  );
}
