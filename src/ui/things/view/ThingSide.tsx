/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import type { ThingView } from '../../../api';
import { dayTimeText } from '../../kit/format';
import Link from '../../kit/Link';
import { placed } from '../../kit/placed';
import type { ThingState } from './useThing';

interface Props<B extends ThingView['body']> {
  readonly state: ThingState<B>;
  readonly zone: string;
  readonly mayChange: boolean;
}

/** What uses a thing, and its versions: an older one is put into the editor, and kept as a new one. */
export function ThingSide<B extends ThingView['body']>({ state, zone, mayChange }: Props<B>) {
  const { view } = state;
  return (
    <>
      {view.kind === 'answer' ? null : <h2 className="side-head">Used by</h2>}
      {view.uses.length === 0 && view.kind !== 'answer' ? <p className="quiet small">Nothing speaks of it yet.</p> : null}
      <ul className="plain-list">
        {view.uses.map((use) => (
          <li key={`${use.kind} ${use.name}`}>
            <Link href={use.href}>{use.name}</Link> <span className="quiet small">{use.kind}</span>
            {use.behind ? <span className="in-brass small"> · live with an older version: release it to take this one</span> : null}
          </li>
        ))}
      </ul>
      <h2 className="side-head">Versions</h2>
      <ul className="plain-list">
        {view.versions.map((version) => (
          <li key={version.no}>
            <span className="strong">{version.no}</span> {version.says}{' '}
            <span className="quiet small">
              {version.savedBy ?? ''}
              {version.savedAt === null ? '' : ` ${dayTimeText(version.savedAt, zone)}`}
            </span>
            {version.no === view.no || !mayChange ? null : (
              <>
                {' '}
                <button
                  className="linkish small"
                  onClick={() => {
                    state.set({ ...version.body, name: view.name } as B);
                    state.say({ calm: true, text: `Version ${version.no} stands in the editor: keep it, or undo.` });
                  }}
                >
                  have it back
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
      {mayChange ? (
        <Button
          size="small"
          css={placed({ marginTop: 12 })}
          disabled={state.busy}
          onClick={() => {
            state.retire(!view.retired);
          }}
        >
          {view.retired ? 'Take back into use' : 'Retire'}
        </Button>
      ) : null}
    </>
  );
}

/** What is wrong at one part, under it. */
export function At({ problems }: { readonly problems: readonly { readonly weight: 'error' | 'warning'; readonly says: string }[] }) {
  return problems.map((problem) => (
    <span key={problem.says} className={`small ${problem.weight === 'error' ? 'in-brick' : 'in-brass'}`} css={placed({ display: 'block' })}>
      ■ {problem.says}
    </span>
  ));
}
