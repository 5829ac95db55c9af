/** @jsxImportSource @emotion/react */
'use client';
import { Button, Checkbox, FormControlLabel, TextField } from '@mui/material';
import { useState } from 'react';
import type { SignInService } from '../../../core/sign-in';
import { placed } from '../../kit/placed';
import { isWhole, problemAt } from '../state/sign-in';

interface Props {
  readonly first: SignInService;
  readonly isNew: boolean;
  readonly hasSecret: boolean;
  readonly backTo: string;
  readonly busy: boolean;
  readonly mayChange: boolean;
  readonly onKeep: (service: SignInService, secret: string | undefined) => void;
  readonly onRemove: (() => void) | undefined;
}

/** One sign-in service, gap by gap, with what each is called on the other side. */
export function ServiceForm({ first, isNew, hasSecret, backTo, busy, mayChange, onKeep, onRemove }: Props) {
  const [service, setService] = useState(first);
  const [secret, setSecret] = useState<string | undefined>(undefined);
  const changed = secret !== undefined || JSON.stringify(service) !== JSON.stringify(first);
  const put = (change: Partial<SignInService>): void => {
    setService({ ...service, ...change });
  };
  const wrong = (part: keyof SignInService) => {
    const says = problemAt(service, first, isNew, part);
    return says === undefined ? null : <span className="small in-brick">■ {says}</span>;
  };
  const line = (part: 'name' | 'issuer' | 'clientId' | 'mailScopes', label: string, help: string) => (
    <div>
      <TextField
        fullWidth
        label={label}
        helperText={help}
        value={service[part]}
        disabled={!mayChange || (part === 'name' && !isNew)}
        autoComplete="off"
        onChange={(event) => {
          put({ [part]: event.target.value });
        }}
      />
      {wrong(part)}
    </div>
  );
  const tick = (part: 'forPeople' | 'privateNetwork', label: string) => (
    <div>
      <FormControlLabel
        label={label}
        disabled={!mayChange}
        control={
          <Checkbox
            checked={service[part]}
            onChange={(event) => {
              put({ [part]: event.target.checked });
            }}
          />
        }
      />
      {wrong(part)}
    </div>
  );
  return (
    <form
      css={placed({ display: 'grid', gap: 12 })}
      className="service-form"
      aria-label="Sign-in service"
      onSubmit={(event) => {
        event.preventDefault();
        if (isWhole(service)) onKeep(service, secret);
      }}
    >
      <h2>{isNew ? 'A new sign-in service' : first.name}</h2>
      {line('name', 'name', 'as people of the house call it: it stands on the door')}
      {line('issuer', 'its address', 'it calls that issuer; its own description lies below it, and is read when you keep this')}
      <div css={placed({ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 10 })}>
        {line('clientId', 'what it calls Millrace', 'its client ID, made there for this installation')}
        <TextField
          fullWidth
          type="password"
          autoComplete="off"
          label="secret"
          helperText={hasSecret ? 'kept and sealed; typed again it is changed' : 'its client secret; nothing where it gives none'}
          value={secret ?? ''}
          disabled={!mayChange}
          onChange={(event) => {
            setSecret(event.target.value);
          }}
        />
      </div>
      <p className="quiet small">
        There, people are sent back to <code>{backTo}</code>
      </p>
      {tick('forPeople', 'people of this workspace come in by it')}
      {line(
        'mailScopes',
        'asked for, to open a mailbox',
        'scopes, apart by spaces, as its handbook has them for IMAP and SMTP; nothing: no mailbox opens by it',
      )}
      {tick('privateNetwork', 'it stands in our own network')}
      {mayChange ? (
        <div css={placed({ display: 'flex', gap: 8, alignItems: 'center' })}>
          <Button type="submit" variant="contained" disabled={busy || !changed || !isWhole(service)}>
            {busy ? 'Asking it…' : 'Keep'}
          </Button>
          {onRemove ? (
            <Button disabled={busy} onClick={onRemove}>
              Remove
            </Button>
          ) : null}
          <span className="quiet small">Who comes in by it is known by an address it has proved; nobody is invited by it.</span>
        </div>
      ) : (
        <p className="quiet">Sign-in services and their secrets are an owner’s.</p>
      )}
    </form>
  );
}
