/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { ProviderTrial } from '../../../api';
import type { Place, Provider } from '../../../core/lookup';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { placed } from '../../kit/placed';
import { TextArea } from '../../kit/TextArea';
import { pointAt, pointAway, roleAt, rolesFor, type Role } from '../state/provider';

interface Props {
  readonly provider: Provider;
  readonly secret: string | undefined;
  readonly mayTryIt: boolean;
  readonly example: string;
  readonly onExample: (text: string) => void;
  readonly trial: ProviderTrial | null;
  readonly onTrial: (trial: ProviderTrial) => void;
  readonly places: readonly Place[];
  readonly onPoint: (provider: Provider) => void;
}

/** Asks once, or takes an example answer, and lets it be said what each value is. */
export function Pointing({ provider, secret, mayTryIt, example, onExample, trial, onTrial, places, onPoint }: Props) {
  const [who, setWho] = useState('');
  const { busy, said, ask } = useAsk();
  const isFirstOfTwo = trial !== null && provider.later !== null && !trial.collected;
  const roles = rolesFor(provider, isFirstOfTwo);
  return (
    <div css={placed({ background: 'var(--w1)', padding: '10px 12px', borderRadius: 4, display: 'grid', gap: 8 })}>
      <form
        css={placed({ display: 'flex', gap: 8, alignItems: 'center' })}
        onSubmit={(event) => {
          event.preventDefault();
          ask(call('tryProvider', { body: { provider, who, ...(secret !== undefined && { secret }) } }), null, onTrial);
        }}
      >
        <TextField
          label={provider.finds === 'value' ? 'try it on, by name' : 'try it with the words'}
          value={who}
          onChange={(event) => {
            setWho(event.target.value);
          }}
        />
        <Button type="submit" disabled={!mayTryIt || busy || who.trim() === ''}>
          {busy ? 'Asking …' : 'Ask once'}
        </Button>
        <span className="quiet small" role="status">
          {trial ? `${trial.person}: ${trial.says}` : 'nothing is kept of the answer; the service may charge for it'}
        </span>
      </form>
      {said ? (
        <p className="small in-brick" role="alert">
          {said.text}
        </p>
      ) : null}
      {trial === null ? (
        <TextArea label="or an example answer from its documentation" shown rows={2} value={example} onChange={onExample} />
      ) : null}
      {places.length > 0 ? (
        <table className="plain">
          <thead>
            <tr>
              <th>{isFirstOfTwo ? 'what it said at first' : 'what came back'}</th>
              <th>stands at</th>
              <th>is</th>
            </tr>
          </thead>
          <tbody>
            {places.map((place) => (
              <PlaceLine
                key={place.at}
                place={place}
                roles={roles}
                role={roleAt(provider, roles, place.at)}
                onRole={(role, was) => {
                  const without = was === '' ? provider : pointAway(provider, was);
                  onPoint(role === '' ? without : pointAt(without, role, place));
                }}
              />
            ))}
          </tbody>
        </table>
      ) : null}
    </div>
  );
}

function PlaceLine({
  place,
  roles,
  role,
  onRole,
}: {
  readonly place: Place;
  readonly roles: readonly { readonly role: Role; readonly label: string }[];
  readonly role: Role | '';
  readonly onRole: (role: Role | '', was: Role | '') => void;
}) {
  return (
    <tr className={role === '' ? '' : 'on'}>
      <td className="strong" css={placed({ maxWidth: 260, overflowWrap: 'anywhere' })}>
        {String(place.value)}
      </td>
      <td className="name">{place.at}</td>
      <td>
        <TextField
          select
          value={role}
          slotProps={{ htmlInput: { 'aria-label': `What ${place.at} is` }, select: { displayEmpty: true } }}
          onChange={(event) => {
            onRole(roles.find((entry) => entry.role === event.target.value)?.role ?? '', role);
          }}
        >
          <MenuItem value="">–</MenuItem>
          {roles.map((entry) => (
            <MenuItem key={entry.role} value={entry.role}>
              {entry.label}
            </MenuItem>
          ))}
        </TextField>
      </td>
    </tr>
  );
}
