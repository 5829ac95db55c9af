'use client';
import { MenuItem, TextField } from '@mui/material';

/** A sign-in service that opens mailboxes, and who was signed in there. */
export interface MailService {
  readonly name: string;
  readonly accounts: readonly { readonly account: string; readonly problem: string | null }[];
}

interface Props {
  readonly services: readonly MailService[];
  /** empty: a password */
  readonly service: string;
  /** the account as it is kept; empty: not yet */
  readonly user: string;
  readonly mayChange: boolean;
  readonly onService: (service: string) => void;
}

/** A password, or a service at which the account is signed in once; how that stands, and the way there. Nothing where there is no service. */
export function SignsInBy({ services, service, user, mayChange, onService }: Props) {
  if (services.length === 0 && service === '') return null;
  const account = user.trim().toLowerCase();
  const given = services.find((entry) => entry.name === service)?.accounts.find((entry) => entry.account === account);
  return (
    <>
      <TextField
        select
        label="opens by"
        helperText={service === '' ? 'or by a sign-in service' : 'no password is kept here'}
        value={service}
        disabled={!mayChange}
        onChange={(event) => {
          onService(event.target.value);
        }}
      >
        <MenuItem value="">a password</MenuItem>
        {services.map(({ name }) => (
          <MenuItem key={name} value={name}>
            {name}
          </MenuItem>
        ))}
        {service !== '' && !services.some(({ name }) => name === service) ? (
          <MenuItem value={service}>{service}, which is gone</MenuItem>
        ) : null}
      </TextField>
      {service === '' ? null : (
        <p className="small" role="status">
          {account === '' ? (
            <span className="quiet">Keep it first: then the account is signed in at {service}.</span>
          ) : given?.problem === null ? (
            <>
              <span className="in-moss">✓</span> {account} is signed in at {service}.
            </>
          ) : (
            <>
              <span className="in-brick">■</span> {given?.problem ?? `${account} has not been signed in at ${service} yet.`}
            </>
          )}{' '}
          {account !== '' && mayChange ? (
            <a href={`/session/with/${encodeURIComponent(service)}?account=${encodeURIComponent(account)}`}>
              {given === undefined ? 'Sign it in' : 'Sign it in again'}
            </a>
          ) : null}
        </p>
      )}
    </>
  );
}
