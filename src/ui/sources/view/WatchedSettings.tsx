'use client';
import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { CalendarSettings, MailboxSettings, WatchedSettings } from '../../../core/intake';
import { hostsIn } from '../state/watched';

interface Props<S> {
  readonly settings: S;
  readonly password: string;
  /** a password is kept already: an empty field leaves it */
  readonly hasPassword: boolean;
  readonly mayChange: boolean;
  /** may let in a server that stands in our own network */
  readonly mayPrivate: boolean;
  readonly onSettings: (settings: S) => void;
  readonly onPassword: (password: string) => void;
}

/** What opens a mailbox or calendar, and what of it is taken in. */
export function WatchedFields(props: Props<WatchedSettings>) {
  const { settings } = props;
  return (
    <>
      {settings.kind === 'mailbox' ? <Mailbox {...props} settings={settings} /> : <Calendar {...props} settings={settings} />}
      <FormControlLabel
        label={`stands in our own network${props.mayPrivate ? '' : ': the owner lets it in'}`}
        disabled={!props.mayChange || !props.mayPrivate}
        control={
          <Checkbox
            checked={settings.privateNetwork}
            onChange={(event) => {
              props.onSettings({ ...settings, privateNetwork: event.target.checked });
            }}
          />
        }
      />
    </>
  );
}

function Password({ password, hasPassword, mayChange, onPassword }: Omit<Props<never>, 'settings' | 'onSettings' | 'mayPrivate'>) {
  return (
    <TextField
      label="Password"
      type="password"
      autoComplete="new-password"
      value={password}
      disabled={!mayChange}
      helperText={hasPassword ? 'kept sealed; empty: as it is. Another server or name wants it again' : 'kept sealed, never shown again'}
      onChange={(event) => {
        onPassword(event.target.value);
      }}
    />
  );
}

function Mailbox({ settings, onSettings, mayChange, ...rest }: Props<MailboxSettings>) {
  const { rule } = settings;
  const put = (change: Partial<MailboxSettings>): void => {
    onSettings({ ...settings, ...change });
  };
  const putRule = (change: Partial<MailboxSettings['rule']>): void => {
    put({ rule: { ...rule, ...change } });
  };
  const text = (label: string, value: string, set: (value: string) => void, help?: string) => (
    <TextField
      label={label}
      value={value}
      disabled={!mayChange}
      helperText={help}
      onChange={(event) => {
        set(event.target.value);
      }}
    />
  );
  const box = (label: string, value: boolean, set: (value: boolean) => void) => (
    <FormControlLabel
      label={label}
      disabled={!mayChange}
      control={
        <Checkbox
          checked={value}
          onChange={(event) => {
            set(event.target.checked);
          }}
        />
      }
    />
  );
  return (
    <>
      <h3>Where it is</h3>
      <div className="pair">
        {text('Mail server (IMAP)', settings.host, (host) => {
          put({ host });
        })}
        {text('Port', String(settings.port), (port) => {
          put({ port: Math.min(65_535, Number(port.replace(/\D/g, '')) || 0) });
        })}
      </div>
      {box('encrypted from the first byte (TLS)', settings.secure, (secure) => {
        put({ secure });
      })}
      {text('Name', settings.user, (user) => {
        put({ user });
      })}
      <Password {...rest} mayChange={mayChange} />
      <h3>Which mails</h3>
      {text('Folder', rule.folder, (folder) => {
        putRule({ folder });
      })}
      <TextField
        select
        label="Take in"
        value={rule.only}
        disabled={!mayChange}
        onChange={(event) => {
          putRule({ only: event.target.value as typeof rule.only });
        }}
      >
        <MenuItem value="new">mails that begin a conversation</MenuItem>
        <MenuItem value="answers">answers in a conversation</MenuItem>
        <MenuItem value="both">both</MenuItem>
      </TextField>
      <TextField
        select
        label="Begin"
        value={rule.begins}
        disabled={!mayChange}
        helperText={
          rule.begins === 'from now on'
            ? 'what lies there already stays as it is'
            : 'the newest 50 that lie there come in at the first look'
        }
        onChange={(event) => {
          putRule({ begins: event.target.value as typeof rule.begins });
        }}
      >
        <MenuItem value="from now on">from now on</MenuItem>
        <MenuItem value="with what lies there">with what lies there</MenuItem>
      </TextField>
      {text(
        'Only from',
        rule.from,
        (from) => {
          putRule({ from });
        },
        'part of a name or an address; empty: everybody',
      )}
      {text(
        'Only about',
        rule.subject,
        (subject) => {
          putRule({ subject });
        },
        'part of the subject; empty: anything',
      )}
      {box('only what nobody has read yet', rule.unreadOnly, (unreadOnly) => {
        putRule({ unreadOnly });
      })}
      {box('only with a file', rule.withFile, (withFile) => {
        putRule({ withFile });
      })}
      <p className="quiet small">
        What somebody has answered by hand, and what machines sent, is left alone. Answers to messages of ours go to their conversation.
        Nothing in the mailbox is changed, not even what counts as read.
      </p>
    </>
  );
}

function Calendar({ settings, onSettings, mayChange, ...rest }: Props<CalendarSettings>) {
  const [hosts, setHosts] = useState(settings.ourHosts.join(', '));
  const put = (change: Partial<CalendarSettings>): void => {
    onSettings({ ...settings, ...change });
  };
  return (
    <>
      <h3>Where it is</h3>
      <TextField
        select
        label="How it is read"
        value={settings.how}
        disabled={!mayChange}
        onChange={(event) => {
          put({ how: event.target.value as typeof settings.how });
        }}
      >
        <MenuItem value="caldav">calendar server (CalDAV)</MenuItem>
        <MenuItem value="feed">calendar file that is fetched (.ics)</MenuItem>
      </TextField>
      <TextField
        label="Address"
        value={settings.url}
        disabled={!mayChange}
        helperText="https://…"
        onChange={(event) => {
          put({ url: event.target.value });
        }}
      />
      <TextField
        label="Name"
        value={settings.user}
        disabled={!mayChange}
        helperText={settings.how === 'feed' ? 'empty when the file is open to who knows its address' : undefined}
        onChange={(event) => {
          put({ user: event.target.value });
        }}
      />
      <Password {...rest} mayChange={mayChange} />
      <h3>Whom to take in, and when</h3>
      <TextField
        label="Our own addresses end in"
        value={hosts}
        disabled={!mayChange}
        helperText="everybody else in a meeting comes from outside, wherever they stand in it"
        onChange={(event) => {
          setHosts(event.target.value);
          put({ ourHosts: hostsIn(event.target.value) });
        }}
      />
      <TextField
        label="Hours before it begins"
        value={String(settings.aheadHours)}
        disabled={!mayChange}
        onChange={(event) => {
          put({ aheadHours: Math.min(336, Math.max(1, Number(event.target.value.replace(/\D/g, '')) || 1)) });
        }}
      />
    </>
  );
}
