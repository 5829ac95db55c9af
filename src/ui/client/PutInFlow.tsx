'use client';
import { Button, Menu, MenuItem } from '@mui/material';
import { useState } from 'react';
import { call, sayProblem } from '.';
import type { SaidText } from '../kit/parts';

export interface FlowName {
  readonly id: string;
  readonly name: string;
}
interface Props {
  readonly label: string;
  readonly main?: boolean;
  readonly flows: readonly FlowName[];
  readonly recordIds: readonly string[];
  /** the sentence for how it went */
  readonly say: (went: { readonly started: number; readonly already: number }, flow: FlowName) => string;
  readonly onSaid: (said: SaidText) => void;
}

/** Puts people or deals in a live flow, chosen from a menu: by hand from any list. */
export function PutInFlow({ label, main = false, flows, recordIds, say, onSaid }: Props) {
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const put = (flow: FlowName): void => {
    setMenu(null);
    call('startFlow', { params: { id: flow.id }, body: { recordIds: [...recordIds] } }).then(
      (went) => {
        onSaid({ calm: true, text: say(went, flow) });
      },
      (error: unknown) => {
        onSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  return (
    <>
      <Button
        variant={main ? 'contained' : 'outlined'}
        onClick={(event) => {
          setMenu(event.currentTarget);
        }}
      >
        {label}
      </Button>
      <Menu
        anchorEl={menu}
        open={menu !== null}
        onClose={() => {
          setMenu(null);
        }}
      >
        {flows.map((flow) => (
          <MenuItem
            key={flow.id}
            onClick={() => {
              put(flow);
            }}
          >
            {flow.name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
