'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';

export type Role = 'owner' | 'builder' | 'rep' | 'reviewer' | 'viewer';

interface Props {
  readonly busy: boolean;
  readonly roles: readonly Role[];
  readonly onInvite: (invite: { readonly email: string; readonly name: string; readonly role: Role; readonly title: string }) => void;
}

/** Somebody is asked in by their address. */
export function InviteForm({ busy, roles, onInvite }: Props) {
  const [email, setEmail] = useState('');
  const [title, setTitle] = useState('');
  const [role, setRole] = useState<Role>('rep');
  return (
    <form
      className="settings-line"
      aria-label="Ask somebody in"
      onSubmit={(event) => {
        event.preventDefault();
        onInvite({ email: email.trim(), name: '', role, title: title.trim() });
        setEmail('');
        setTitle('');
      }}
    >
      <TextField
        placeholder="e-mail of somebody new"
        value={email}
        onChange={(event) => {
          setEmail(event.target.value);
        }}
        slotProps={{ htmlInput: { 'aria-label': 'E-mail of somebody new', type: 'email' } }}
      />
      <TextField
        select
        value={role}
        onChange={(event) => {
          setRole(event.target.value as Role);
        }}
        slotProps={{ htmlInput: { 'aria-label': 'Role' } }}
      >
        {roles.map((entry) => (
          <MenuItem key={entry} value={entry}>
            {entry}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        placeholder="what they do"
        value={title}
        onChange={(event) => {
          setTitle(event.target.value);
        }}
        slotProps={{ htmlInput: { 'aria-label': 'What they do', maxLength: 80 } }}
      />
      <Button type="submit" variant="contained" disabled={busy || email.trim() === ''}>
        Ask in
      </Button>
    </form>
  );
}
