/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import type { ThingView } from '../../../api';
import Link from '../../kit/Link';
import { Tag, TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { KIND_WORDS, usersText } from '../state/thing';
import type { StageMoves } from '../state/stages';
import type { ThingState } from './useThing';

/** The page above the list of a kind. */
const ABOVE = {
  scorecard: null,
  template: { href: '/messages', label: 'Messages' },
  plan: { href: '/messages', label: 'Messages' },
  pipeline: { href: '/pipeline', label: 'Pipeline' },
  answer: { href: '/messages', label: 'Messages' },
  chain: { href: '/lookups', label: 'Lookups' },
} as const;

/** The head of a thing's page: its name, its version, what uses it, and keeping what was changed. */
export function ThingBar<B extends ThingView['body']>({
  state,
  mayChange,
  moves,
}: {
  readonly state: ThingState<B>;
  readonly mayChange: boolean;
  /** of a pipeline: where deals go */
  readonly moves?: StageMoves;
}) {
  const { view, trial, isChanged, busy } = state;
  const [name, setName] = useState<string | null>(null);
  const words = KIND_WORDS[view.kind];
  const above = ABOVE[view.kind];
  const wrong = trial?.problems.filter((problem) => problem.weight === 'error').length ?? 0;
  return (
    <TopBar
      path={
        <>
          {above === null ? null : (
            <>
              <Link href={above.href}>{above.label}</Link> <span aria-hidden>&nbsp;/</span>{' '}
            </>
          )}
          <Link href={words.href}>{words.many}</Link>
        </>
      }
      title={view.name}
      tags={
        name === null ? (
          <>
            <Tag tone={isChanged ? 'river' : 'plain'}>{isChanged ? `changed since version ${view.no}` : `version ${view.no}`}</Tag>
            {view.retired ? <Tag tone="brass">retired</Tag> : null}
            {view.kind === 'answer' ? null : <span className="quiet small">used by {usersText(view)}</span>}
            {mayChange ? (
              <button
                className="linkish small"
                onClick={() => {
                  setName(view.name);
                }}
              >
                rename
              </button>
            ) : null}
          </>
        ) : (
          <form
            css={placed({ display: 'flex', gap: 8, alignItems: 'center' })}
            onSubmit={(event) => {
              event.preventDefault();
              if (name.trim() !== '' && name.trim() !== view.name) state.rename(name.trim());
              setName(null);
            }}
          >
            <TextField
              autoFocus
              value={name}
              onChange={(event) => {
                setName(event.target.value);
              }}
              onKeyDown={(event) => {
                if (event.key === 'Escape') setName(null);
              }}
              slotProps={{ htmlInput: { 'aria-label': 'New name', maxLength: 80 } }}
            />
            <Button type="submit" disabled={busy}>
              Rename
            </Button>
          </form>
        )
      }
    >
      {mayChange ? (
        <>
          <Button disabled={busy || !state.canUndo} onClick={state.undo}>
            Undo
          </Button>
          <Button
            variant="contained"
            disabled={busy || !isChanged || wrong > 0}
            title={wrong > 0 ? 'what is wrong is said at its place' : undefined}
            onClick={() => {
              state.keep('', moves);
            }}
          >
            {`Keep version ${view.no + 1}`}
          </Button>
        </>
      ) : null}
    </TopBar>
  );
}
