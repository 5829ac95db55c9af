'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { PeopleHere as View } from '../../../api';
import { plural } from '../../../core/base';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { agoText, dateText } from '../../kit/format';
import { Tag } from '../../kit/parts';
import { InviteForm, type Role } from './InviteForm';
import { PersonPanel } from './PersonPanel';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: View;
  readonly roles: readonly { readonly role: Role; readonly may: readonly string[] }[];
  readonly own: string;
  readonly now: number;
  readonly zone: string;
  readonly mayChange: boolean;
}

/** Who works here and who is asked in; the chosen one beside, with what they may do. */
export function PeopleHere({ index, first, roles, own, now, zone, mayChange }: Props) {
  const router = useRouter();
  const [view, setView] = useState(first);
  const [chosen, setChosen] = useState(first.people[0]?.id ?? '');
  const [link, setLink] = useState<{ readonly email: string; readonly link: string } | null>(null);
  const { busy, said, hush, ask } = useAsk();
  const done = (asked: Promise<View>, says: string): void => {
    ask(asked, says, (next) => {
      setView(next);
      router.refresh();
    });
  };
  const selected = view.people.find((person) => person.id === chosen);
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">people and roles</span>} said={said} onClose={hush}>
      <section className="col paper grow" tabIndex={0} aria-label="People and roles">
        <table className="plain">
          <thead>
            <tr>
              <th>name</th>
              <th>role</th>
              <th>teams</th>
              <th className="right">records</th>
              <th>last here</th>
            </tr>
          </thead>
          <tbody>
            {view.people.map((person) => (
              <PersonLine
                key={person.id}
                person={person}
                isChosen={person.id === chosen}
                now={now}
                onChoose={() => {
                  setChosen(person.id);
                }}
              />
            ))}
          </tbody>
        </table>
        {view.invites.map((invite) => (
          <div key={invite.id} className="settings-line">
            <span className="grow">
              <span className="strong">{invite.email}</span>{' '}
              <span className="quiet small">
                asked in as {invite.role}
                {invite.invitedByName === null ? '' : ` by ${invite.invitedByName}`}, open until {dateText(invite.expiresAt, zone)}
              </span>
            </span>
            {mayChange ? (
              <Button
                disabled={busy}
                onClick={() => {
                  done(call('withdrawInvite', { params: { id: invite.id } }), `The invitation of ${invite.email} opens nothing any more.`);
                }}
              >
                Withdraw
              </Button>
            ) : null}
          </div>
        ))}
        {link ? (
          <div className="settings-line" role="status">
            <span className="grow">
              Give {link.email} this address; it is shown this once, and opens the door once: <code className="strong">{link.link}</code>
            </span>
            <Button onClick={() => void navigator.clipboard.writeText(link.link)}>Copy</Button>
          </div>
        ) : null}
        {mayChange ? (
          <InviteForm
            busy={busy}
            roles={roles.map((entry) => entry.role)}
            onInvite={(invite) => {
              ask(call('invite', { body: invite }), null, (next) => {
                setView(next);
                setLink({ email: invite.email, link: next.link });
                router.refresh();
              });
            }}
          />
        ) : (
          <p className="quiet settings-line">Only an owner asks people in, changes roles and lets people go.</p>
        )}
      </section>
      {selected ? (
        <PersonPanel
          key={JSON.stringify(selected)}
          person={selected}
          others={view.people.filter((person) => person.id !== selected.id && person.endedAt === null)}
          roles={roles}
          zone={zone}
          isOwn={selected.id === own}
          busy={busy}
          mayChange={mayChange}
          onChange={(change, says) => {
            done(call('changePersonHere', { params: { id: selected.id }, body: change }), says);
          }}
          onLetGo={(handTo) => {
            const handed = handTo === null ? '' : `; ${plural(selected.owns, 'record')} handed over`;
            done(call('letGo', { params: { id: selected.id }, body: { handTo } }), `${selected.name} cannot come in any more${handed}.`);
          }}
          onLetBack={() => {
            done(call('letBack', { params: { id: selected.id } }), `${selected.name} can come in again.`);
          }}
          onFactorEnd={() => {
            const ended = call('endFactorOf', { params: { id: selected.id } }).then(() => call('listPeopleHere'));
            done(ended, `${selected.name} comes in with the password alone until another is set up.`);
          }}
        />
      ) : null}
    </SettingsFrame>
  );
}

interface LineProps {
  readonly person: View['people'][number];
  readonly isChosen: boolean;
  readonly now: number;
  readonly onChoose: () => void;
}
function PersonLine({ person, isChosen, now, onChoose }: LineProps) {
  return (
    <tr className={`go${isChosen ? ' on' : ''}`} onClick={onChoose}>
      <td>
        <button className="linkish strong">{person.name}</button>
        <div className="quiet small">{person.email}</div>
      </td>
      <td>
        {person.endedAt === null ? <Tag tone="river">{person.role}</Tag> : <Tag>gone</Tag>}{' '}
        <span className="quiet small">{person.title}</span>
        {person.hasFactor ? <div className="quiet small">with a second factor</div> : null}
      </td>
      <td className="quiet">{person.teams.join(', ') || '–'}</td>
      <td className="right">{person.owns === 0 ? <span className="quiet">–</span> : person.owns}</td>
      <td className="quiet">{person.seenAt === null ? 'never' : agoText(person.seenAt, now)}</td>
    </tr>
  );
}
