/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { SignInServiceView } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { dayTimeText } from '../../kit/format';
import { Empty, Notice, Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { NEW_SERVICE, usedFor } from '../state/sign-in';
import { ServiceForm } from './ServiceForm';
import { PickList } from './PickList';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: readonly SignInServiceView[];
  readonly backTo: string;
  readonly zone: string;
  /** how the last way to a service ended; null: none did just now */
  readonly came: { readonly isGood: boolean; readonly says: string } | null;
  readonly mayChange: boolean;
}

/** Services by which people come in and mailboxes open: how each is reached, what it is for, which mailboxes were signed in. */
export function SignInServices({ index, first, backTo, zone, came, mayChange }: Props) {
  const router = useRouter();
  const [items, setItems] = useState(first);
  const [chosen, setChosen] = useState<string | null>(first[0]?.service.name ?? null);
  const { busy, said, hush, ask } = useAsk();
  const view = items.find((item) => item.service.name === chosen);
  const took = (next: { readonly items: readonly SignInServiceView[] }): void => {
    setItems(next.items);
    router.refresh();
  };
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">signing in</span>} said={said} onClose={hush}>
      <PickList
        label="Sign-in services"
        items={items.map((item) => ({
          name: item.service.name,
          tag: item.accounts.some((account) => account.problem !== null) ? <Tag tone="brick">a mailbox is shut</Tag> : null,
          says: usedFor(item),
        }))}
        chosen={chosen}
        onChoose={setChosen}
        mayAdd={mayChange}
        empty={
          <Empty title="Passwords only, so far">
            Where your house has a service that people sign in at (OpenID Connect), they come in here by it, and mailboxes open without a
            password being kept.
          </Empty>
        }
      />
      <section
        className="col paper grow"
        css={placed({ padding: '14px 20px', display: 'grid', gap: 12, alignContent: 'start' })}
        tabIndex={0}
        aria-label="Description"
      >
        {came ? came.isGood ? <p role="status">✓ {came.says}</p> : <Notice>{came.says}</Notice> : null}
        <ServiceForm
          key={chosen ?? 'new'}
          first={view?.service ?? NEW_SERVICE}
          isNew={view === undefined}
          hasSecret={view?.hasSecret ?? false}
          backTo={backTo}
          busy={busy}
          mayChange={mayChange}
          onKeep={(service, secret) => {
            ask(
              call('keepSignInService', { body: { service, ...(secret !== undefined && { secret }) } }),
              `${service.name} answers, and is kept.`,
              (next) => {
                took(next);
                setChosen(service.name);
              },
            );
          }}
          onRemove={
            view && view.usedBy.length === 0
              ? () => {
                  ask(call('removeSignInService', { body: { name: view.service.name } }), `${view.service.name} is removed.`, (next) => {
                    took(next);
                    setChosen(next.items[0]?.service.name ?? null);
                  });
                }
              : undefined
          }
        />
        {view ? (
          <Accounts
            view={view}
            zone={zone}
            busy={busy}
            onEnd={
              mayChange
                ? (id, account) => {
                    ask(call('signMailboxOut', { params: { id } }), `${account} is signed out here.`, took);
                  }
                : undefined
            }
          />
        ) : null}
      </section>
    </SettingsFrame>
  );
}

interface AccountsProps {
  readonly view: SignInServiceView;
  readonly zone: string;
  readonly busy: boolean;
  readonly onEnd: ((id: string, account: string) => void) | undefined;
}
/** Mailboxes that were signed in there: since when, whether they still open. */
function Accounts({ view: { service, accounts }, zone, busy, onEnd }: AccountsProps) {
  return (
    <>
      <h2>Mailboxes signed in at {service.name}</h2>
      {accounts.length === 0 ? (
        <p className="quiet">None. A mailbox that opens by {service.name} is signed in on its own page, once.</p>
      ) : (
        <table className="plain">
          <thead>
            <tr>
              <th>mailbox</th>
              <th>since</th>
              <th>opens</th>
              {onEnd ? <th aria-label="what can be done" /> : null}
            </tr>
          </thead>
          <tbody>
            {accounts.map(({ id, account, since, problem }) => (
              <tr key={id}>
                <td className="strong">{account}</td>
                <td className="quiet nowrap">{dayTimeText(since, zone)}</td>
                <td>{problem === null ? <Tag tone="moss">opens</Tag> : <span className="in-brick">■ {problem}</span>}</td>
                {onEnd ? (
                  <td className="right nowrap">
                    <a href={`/session/with/${encodeURIComponent(service.name)}?account=${encodeURIComponent(account)}`}>Sign in again</a>{' '}
                    <Button
                      size="small"
                      disabled={busy}
                      onClick={() => {
                        onEnd(id, account);
                      }}
                    >
                      Sign out
                    </Button>
                  </td>
                ) : null}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
