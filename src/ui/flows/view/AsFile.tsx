'use client';
import { Button, Menu, MenuItem } from '@mui/material';
import { useState } from 'react';

const WAYS = [
  ['text', 'Flow text', 'one file that reads aloud (.race)'],
  ['bundle', 'Bundle', 'with the scorecards, texts, plans … it names (.zip)'],
  ['tree', 'Syntax tree', 'for programs (.json)'],
  ['picture', 'Picture', 'for documents (.svg)'],
] as const;

/** Takes the draft along as a file. */
export function AsFile({ flowId }: { readonly flowId: string }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        aria-haspopup="menu"
        onClick={(event) => {
          setAnchor(event.currentTarget);
        }}
      >
        As a file
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => {
          setAnchor(null);
        }}
      >
        {WAYS.map(([as, label, says]) => (
          <MenuItem
            key={as}
            component="a"
            href={`/api/v1/flows/${flowId}/file?as=${as}`}
            onClick={() => {
              setAnchor(null);
            }}
          >
            <span className="strong">{label}</span>&ensp;<span className="quiet small">{says}</span>
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
