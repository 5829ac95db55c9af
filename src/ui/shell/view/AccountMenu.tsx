'use client';
import { Menu, MenuItem } from '@mui/material';
import { useState } from 'react';
import Link from '../../kit/Link';
import { THEME_KEY } from '../../kit/Kit';

/** Days the demo's clock can be let go on by, besides one. */
const FAR_DAYS = [3, 14];

interface Props {
  readonly name: string;
  /** null: the clock is the real one, or not for this person to move */
  readonly move: ((days: number) => void) | null;
}

/** Who is signed in, and what is theirs alone. */
export function AccountMenu({ name, move }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => {
    setAnchor(null);
  };
  const flipTheme = () => {
    const next = document.documentElement.dataset.theme === 'dark' ? 'light' : 'dark';
    document.documentElement.dataset.theme = next;
    localStorage.setItem(THEME_KEY, next);
    close();
  };
  return (
    <>
      <button
        onClick={(event) => {
          setAnchor(event.currentTarget);
        }}
      >
        {name}
      </button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        {move === null
          ? null
          : FAR_DAYS.map((days) => (
              <MenuItem
                key={days}
                onClick={() => {
                  close();
                  move(days);
                }}
              >
                {days} days later
              </MenuItem>
            ))}
        <MenuItem component={Link} href="/account">
          My account
        </MenuItem>
        <MenuItem onClick={flipTheme}>Dark or light</MenuItem>
        <MenuItem component="a" href="/api/v1/openapi.json">
          API description
        </MenuItem>
        <MenuItem onClick={() => void signOut()}>Sign out</MenuItem>
      </Menu>
    </>
  );
}

async function signOut(): Promise<void> {
  await fetch('/session', { method: 'DELETE' });
  window.location.href = '/sign-in';
}
