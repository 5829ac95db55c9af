/** @jsxImportSource @emotion/react */
'use client';
import type { ReactNode } from 'react';
import type { ThingView } from '../../../api';
import { Said } from '../../kit/parts';
import { placed } from '../../kit/placed';
import type { StageMoves } from '../state/stages';
import { ThingBar } from './ThingBar';
import { ThingSide } from './ThingSide';
import type { ThingState } from './useThing';
import './things.css';

interface Props<B extends ThingView['body']> {
  readonly state: ThingState<B>;
  readonly zone: string;
  readonly mayChange: boolean;
  /** what is worked on, for who hears the page */
  readonly label: string;
  readonly sideLabel: string;
  readonly sideWidth?: number;
  /** above what uses it and its versions */
  readonly side?: ReactNode;
  /** of a pipeline: where deals go */
  readonly moves?: StageMoves;
  readonly children: ReactNode;
}

/** The page of a named thing: its head, what is worked on, and beside it what it does, what uses it and its versions. */
export function BenchFrame<B extends ThingView['body']>({
  state,
  zone,
  mayChange,
  label,
  sideLabel,
  sideWidth,
  side,
  moves,
  children,
}: Props<B>) {
  return (
    <>
      <ThingBar state={state} mayChange={mayChange} {...(moves && { moves })} />
      <Said
        said={state.said}
        onClose={() => {
          state.say(null);
        }}
      />
      <div className="cols">
        <section className="col paper grow thing-main" tabIndex={0} aria-label={label}>
          {children}
        </section>
        <aside className="col thing-side" aria-label={sideLabel} css={sideWidth === undefined ? undefined : placed({ width: sideWidth })}>
          {side}
          <ThingSide state={state} zone={zone} mayChange={mayChange} />
        </aside>
      </div>
    </>
  );
}
