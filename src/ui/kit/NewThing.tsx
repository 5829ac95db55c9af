/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { placed } from './placed';

/** A new thing begins with its name. */
export function NewThing({
  one,
  label = 'Begin',
  busy,
  onName,
}: {
  /** what it is called: `text` */
  readonly one: string;
  readonly label?: string;
  readonly busy: boolean;
  readonly onName: (name: string) => void;
}) {
  const [name, setName] = useState('');
  return (
    <form
      css={placed({ display: 'flex', gap: 8 })}
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() !== '') onName(name.trim());
      }}
    >
      <TextField
        placeholder={`a new ${one}, by name`}
        value={name}
        onChange={(event) => {
          setName(event.target.value);
        }}
        slotProps={{ htmlInput: { 'aria-label': `Name of a new ${one}`, maxLength: 80 } }}
      />
      <Button type="submit" variant="contained" disabled={busy || name.trim() === ''}>
        {label}
      </Button>
    </form>
  );
}
