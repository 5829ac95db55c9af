'use client';
import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { CalendarSettings, MailboxSettings, WatchedSettings } from '../../../core/intake';
import { SignsInBy, type MailService } from '../../client/SignsInBy';
import { hostsIn } from '../state/watched';

interface Props<S> {
  readonly settings: S;
  readonly password: string;
  /** a password is kept already: an empty field leaves it */
  readonly hasPassword: boolean;
  readonly mayChange: boolean;
  /** sign-in services that open mailboxes */
  readonly services: readonly MailService[];
  /** how the account is kept that a service opens; nothing: not yet */
  readonly kept: { readonly user: string; readonly service: string | null } | null;
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

function Password({
  password,
  hasPassword,
  mayChange,
  onPassword,
}: Omit<Props<never>, 'settings' | 'onSettings' | 'mayPrivate' | 'services' | 'kept'>) {
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

interface LineProps {
  readonly label: string;
  readonly value: string;
  readonly off: boolean;
  readonly help?: string;
  readonly onValue: (value: string) => void;
}
function Line({ label, value, off, help, onValue }: LineProps) {
  return (
    <TextField
      label={label}
      value={value}
      disabled={off}
      helperText={help}
      onChange={(event) => {
        onValue(event.target.value);
      }}
    />
  );
}
function Tick({
  label,
  value,
  off,
  onValue,
}: Omit<LineProps, 'value' | 'onValue' | 'help'> & { readonly value: boolean; readonly onValue: (value: boolean) => void }) {
  return (
    <FormControlLabel
      label={label}
      disabled={off}
      control={
        <Checkbox
          checked={value}
          onChange={(event) => {
            onValue(event.target.checked);
          }}
        />
      }
    />
  );
}

/** Its server, and what opens it. */
function MailboxPlace({ settings, onSettings, mayChange, services, kept, ...rest }: Props<MailboxSettings>) {
  const put = (change: Partial<MailboxSettings>): void => {
    onSettings({ ...settings, ...change });
  };
  const off = !mayChange;
  return (
    <>
      <h3>Where it is</h3>
      <div className="pair">
        <Line
          label="Mail server (IMAP)"
          value={settings.host}
          off={off}
          onValue={(host) => {
            put({ host });
          }}
        />
        <Line
          label="Port"
          value={String(settings.port)}
          off={off}
          onValue={(port) => {
            put({ port: Math.min(65_535, Number(port.replace(/\D/g, '')) || 0) });
          }}
        />
      </div>
      <Tick
        label="encrypted from the first byte (TLS)"
        value={settings.secure}
        off={off}
        onValue={(secure) => {
          put({ secure });
        }}
      />
      <Line
        label="Name"
        value={settings.user}
        off={off}
        onValue={(user) => {
          put({ user });
        }}
      />
      <SignsInBy
        services={services}
        service={settings.service ?? ''}
        user={kept?.service === settings.service ? (kept?.user ?? '') : ''}
        mayChange={mayChange && rest.mayPrivate}
        onService={(service) => {
          put({ service: service === '' ? null : service });
        }}
      />
      {settings.service === null ? <Password {...rest} mayChange={mayChange} /> : null}
    </>
  );
}

function Mailbox(props: Props<MailboxSettings>) {
  const { settings, onSettings, mayChange } = props;
  const { rule } = settings;
  const off = !mayChange;
  const putRule = (change: Partial<MailboxSettings['rule']>): void => {
    onSettings({ ...settings, rule: { ...rule, ...change } });
  };
  return (
    <>
      <MailboxPlace {...props} />
      <h3>Which mails</h3>
      <Line
        label="Folder"
        value={rule.folder}
        off={off}
        onValue={(folder) => {
          putRule({ folder });
        }}
      />
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
      <Line
        label="Only from"
        value={rule.from}
        off={off}
        help="part of a name or an address; empty: everybody"
        onValue={(from) => {
          putRule({ from });
        }}
      />
      <Line
        label="Only about"
        value={rule.subject}
        off={off}
        help="part of the subject; empty: anything"
        onValue={(subject) => {
          putRule({ subject });
        }}
      />
      <Tick
        label="only what nobody has read yet"
        value={rule.unreadOnly}
        off={off}
        onValue={(unreadOnly) => {
          putRule({ unreadOnly });
        }}
      />
      <Tick
        label="only with a file"
        value={rule.withFile}
        off={off}
        onValue={(withFile) => {
          putRule({ withFile });
        }}
      />
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
