'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState, type ReactNode } from 'react';
import { draftProblem, withTls, type MailboxDraft } from './mailbox';
import { SignsInBy, type MailService } from './SignsInBy';
import { TextArea } from '../kit/TextArea';
import '../kit/form.css';
import './MailboxForm.css';

interface Props {
  readonly first: MailboxDraft;
  readonly hasPassword: boolean;
  readonly zones: readonly string[];
  /** sign-in services that open mailboxes */
  readonly services?: readonly MailService[];
  readonly busy: boolean;
  readonly mayChange: boolean;
  readonly onKeep: (draft: MailboxDraft) => void;
  readonly onLeave: (() => void) | null;
}

type TextKey =
  | 'name'
  | 'address'
  | 'displayName'
  | 'dailyLimit'
  | 'personGapDays'
  | 'minutesApart'
  | 'rampFrom'
  | 'rampStep'
  | 'replyTo'
  | 'host'
  | 'port'
  | 'user'
  | 'password';

/** A mailbox, gap by gap, with where each value is found. */
export function MailboxForm({ first, hasPassword, zones, services = [], busy, mayChange, onKeep, onLeave }: Props) {
  const [draft, setDraft] = useState(first);
  const changed = JSON.stringify(draft) !== JSON.stringify(first);
  const problem = draftProblem(draft);
  const gap = (key: TextKey, label: string, help: string, more: { readonly secret?: boolean; readonly off?: boolean } = {}) => (
    <TextField
      label={label}
      helperText={help}
      value={draft[key]}
      disabled={!mayChange || more.off === true}
      type={more.secret === true ? 'password' : 'text'}
      autoComplete={more.secret === true ? 'new-password' : 'off'}
      onChange={(event) => {
        setDraft({ ...draft, [key]: event.target.value });
      }}
    />
  );
  return (
    <form
      aria-label="Mailbox"
      onSubmit={(event) => {
        event.preventDefault();
        if (problem === undefined) onKeep(draft);
      }}
    >
      <div className="settings-form">
        {gap('name', 'name', 'what plans and flows call it', { off: !draft.isNew })}
        {gap('address', 'writes from', 'the address readers see')}
        {gap('displayName', 'sender’s name', 'the name readers see')}
        {gap('replyTo', 'answers go to', 'nothing: to the same address')}
        {gap('dailyLimit', 'mails a day at most', 'a new address begins with few')}
        {gap('rampFrom', 'on the first day', 'mails a new address begins with; nothing: all it may')}
        {gap('rampStep', 'more each weekday', 'until it may send as many as stands above')}
        {gap('minutesApart', 'minutes between two mails', 'at least, whoever they are to')}
        {gap('personGapDays', 'days between two mails', 'to one person, over all flows; 0 for none')}
        <TextField
          select
          label="office hours of"
          helperText="for readers of whom no zone is known"
          value={draft.zone}
          disabled={!mayChange}
          onChange={(event) => {
            setDraft({ ...draft, zone: event.target.value });
          }}
        >
          {zones.map((zone) => (
            <MenuItem key={zone} value={zone}>
              {zone}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="mails leave by"
          helperText="the relay belongs to this installation"
          value={draft.ownRoute ? 'own' : 'relay'}
          disabled={!mayChange}
          onChange={(event) => {
            setDraft({ ...draft, ownRoute: event.target.value === 'own' });
          }}
        >
          <MenuItem value="own">a server of its own</MenuItem>
          <MenuItem value="relay">the relay</MenuItem>
        </TextField>
        {draft.ownRoute ? (
          <OwnWay
            draft={draft}
            first={first}
            hasPassword={hasPassword}
            services={services}
            mayChange={mayChange}
            gap={gap}
            onDraft={setDraft}
          />
        ) : null}
      </div>
      <div className="mailbox-signature">
        <TextArea
          label="signature, under each mail"
          shown
          rows={3}
          value={draft.signature}
          disabled={!mayChange}
          onChange={(signature) => {
            setDraft({ ...draft, signature });
          }}
        />
      </div>
      {mayChange ? (
        <div className="settings-line">
          <Button type="submit" variant="contained" disabled={busy || !changed || problem !== undefined}>
            Keep
          </Button>
          {onLeave ? <Button onClick={onLeave}>Leave it</Button> : null}
          <span className="quiet small">{changed ? (problem ?? '') : ''}</span>
        </div>
      ) : (
        <p className="quiet settings-line">Mailboxes and their passwords are an owner’s.</p>
      )}
    </form>
  );
}

/** Its own server, and what signs in there. */
function OwnWay({
  draft,
  first,
  hasPassword,
  services,
  mayChange,
  gap,
  onDraft,
}: Pick<Props, 'first' | 'hasPassword' | 'mayChange'> & {
  readonly services: readonly MailService[];
  readonly draft: MailboxDraft;
  readonly gap: (key: TextKey, label: string, help: string, more?: { readonly secret?: boolean }) => ReactNode;
  readonly onDraft: (draft: MailboxDraft) => void;
}) {
  return (
    <>
      {gap('host', 'server', 'your provider calls it SMTP or outgoing server')}
      <TextField
        select
        label="encrypted"
        helperText="from the start is the safest"
        value={draft.tls}
        disabled={!mayChange}
        onChange={(event) => {
          onDraft(withTls(draft, event.target.value as MailboxDraft['tls']));
        }}
      >
        <MenuItem value="from the start">from the start</MenuItem>
        <MenuItem value="after a greeting">after a greeting</MenuItem>
        <MenuItem value="never">never</MenuItem>
      </TextField>
      {gap('port', 'port', '465, or 587 after a greeting')}
      {gap('user', 'signs in as', 'often the whole address; nothing: nobody signs in')}
      <SignsInBy
        services={services}
        service={draft.service}
        user={first.service === draft.service ? first.user : ''}
        mayChange={mayChange}
        onService={(service) => {
          onDraft({ ...draft, service });
        }}
      />
      {draft.service === ''
        ? gap('password', 'password', hasPassword ? 'kept and sealed; typed again it is changed' : 'often one made for programs only', {
            secret: true,
          })
        : null}
    </>
  );
}
