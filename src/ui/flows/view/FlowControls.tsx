/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { countText } from '../../kit/format';
import type { SaidText } from '../../kit/parts';
import { placed } from '../../kit/placed';

interface Props {
  readonly flowId: string;
  readonly paused: boolean;
  /** trips under way, and of those on older versions than the live one */
  readonly underWay: number;
  readonly older: number;
  readonly onSaid: (said: SaidText) => void;
}

/** Rest a flow, move what is under way to the live version, or end it all: the last asks once more, for it cannot be undone. */
export function FlowControls({ flowId, paused, underWay, older, onSaid }: Props) {
  const router = useRouter();
  const [sure, setSure] = useState(false);
  const act = <T,>(work: Promise<T>, say: (answer: T) => string): void => {
    setSure(false);
    work.then(
      (answer) => {
        onSaid({ calm: true, text: say(answer) });
        router.refresh();
      },
      (error: unknown) => {
        onSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  const params = { id: flowId };
  return (
    <>
      {older > 0 ? (
        <Button
          title="Where the live version has the same lines, trips go on with it; the others finish on theirs"
          onClick={() => {
            act(
              call('moveFlowTrips', { params, body: {} }),
              ({ moved, stayed }) => `${plural(moved, 'trip goes', 'trips go')} on with the live version; ${stayed} finish on theirs.`,
            );
          }}
        >
          Move {countText(older)} to the live version
        </Button>
      ) : null}
      <Button
        onClick={() => {
          act(call('restFlow', { params, body: { rest: !paused } }), ({ trips }) =>
            paused
              ? `The flow goes on; ${plural(trips, 'trip')} with it.`
              : `The flow rests: ${plural(trips, 'trip waits', 'trips wait')}, nothing is sent.`,
          );
        }}
      >
        {paused ? 'Let it go on' : 'Rest the flow'}
      </Button>
      {underWay > 0 ? (
        sure ? (
          <>
            <Button
              variant="contained"
              css={placed({ background: 'var(--brick)' })}
              onClick={() => {
                act(
                  call('endFlowTrips', { params, body: {} }),
                  ({ trips }) => `${plural(trips, 'trip ends', 'trips end')} now; what had not left is dropped.`,
                );
              }}
            >
              End {countText(underWay)} for good
            </Button>
            <Button
              onClick={() => {
                setSure(false);
              }}
            >
              Keep them
            </Button>
          </>
        ) : (
          <Button
            onClick={() => {
              setSure(true);
            }}
          >
            End all …
          </Button>
        )
      ) : null}
    </>
  );
}
