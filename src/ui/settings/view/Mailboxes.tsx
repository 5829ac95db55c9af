'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { MailboxShape } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { agoText, dayTimeText } from '../../kit/format';
import { Empty, Tag } from '../../kit/parts';
import { askOf, draftOf, newDraft, type MailboxDraft } from '../../client/mailbox';
import { MailboxForm } from '../../client/MailboxForm';
import type { MailService } from '../../client/SignsInBy';
import { DomainSays } from './DomainSays';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: readonly MailboxShape[];
  readonly services: readonly MailService[];
  readonly zones: readonly string[];
  readonly space: { readonly name: string; readonly zone: string };
  readonly now: number;
  /** the owner: passwords are theirs */
  readonly mayChange: boolean;
  /** lets a mailbox that rests send again */
  readonly mayResume: boolean;
}

/** Mailboxes that write: how each sends, what it may send, whether it works; the chosen one below. */
export function Mailboxes({ index, first, services, zones, space, now, mayChange, mayResume }: Props) {
  const router = useRouter();
  const [items, setItems] = useState(first);
  const [chosen, setChosen] = useState<string | null>(first[0]?.name ?? null);
  const [fresh, setFresh] = useState<MailboxDraft | null>(null);
  const { busy, said, hush, ask } = useAsk();
  const selected = items.find((box) => box.name === chosen);
  const keep = (draft: MailboxDraft): void => {
    const name = draft.name.trim();
    ask(
      call('keepMailbox', { params: { name }, body: askOf(draft) }),
      `${name} is kept: check it, so that you know mails leave.`,
      (next) => {
        setItems(next.items);
        setChosen(name);
        setFresh(null);
        router.refresh();
      },
    );
  };
  const check = (name: string): void => {
    ask(call('checkMailbox', { params: { name } }), null, (next) => {
      setItems(next.items);
      router.refresh();
    });
  };
  const sign = (name: string, make: boolean): void => {
    const says = make ? 'A key is made. Put its line at the domain, then check.' : 'The key is thrown away: nothing is signed any more.';
    ask(call(make ? 'makeSigningKey' : 'dropSigningKey', { params: { name } }), says, (next) => {
      setItems(next.items);
      router.refresh();
    });
  };
  const resume = (name: string): void => {
    ask(call('letMailboxSend', { params: { name } }), `${name} sends again: what came back until now is not held against it.`, (next) => {
      setItems(next.items);
      router.refresh();
    });
  };
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">mailboxes and sending</span>} said={said} onClose={hush}>
      <section className="col paper grow" tabIndex={0} aria-label="Mailboxes and sending">
        <MailboxTable
          items={items}
          chosen={fresh === null ? chosen : null}
          onChoose={(name) => {
            setChosen(name);
            setFresh(null);
          }}
        />
        {items.length === 0 && fresh === null ? (
          <Empty title="Nothing can be sent yet">
            A plan needs a mailbox to write from: its address, and the server its mails leave by.
          </Empty>
        ) : null}
        {mayChange && fresh === null ? (
          <div className="settings-line">
            <Button
              onClick={() => {
                setFresh(newDraft(space.zone, space.name));
              }}
            >
              Add a mailbox
            </Button>
            <span className="quiet small">
              Mails of one mailbox leave as far apart as it says. What comes back is read by a mailbox under Sources.
            </span>
          </div>
        ) : null}
        {fresh !== null || selected ? (
          <MailboxForm
            key={fresh === null ? JSON.stringify(selected) : 'new'}
            first={fresh ?? draftOf(selected as MailboxShape)}
            hasPassword={fresh === null && selected?.hasPassword === true}
            services={services}
            zones={zones}
            busy={busy}
            mayChange={mayChange}
            onKeep={keep}
            onLeave={
              fresh === null
                ? null
                : () => {
                    setFresh(null);
                  }
            }
          />
        ) : null}
        {fresh === null && selected ? (
          <>
            <DoesItSend box={selected} now={now} busy={busy} onCheck={mayChange ? check : undefined} />
            <DomainSays
              box={selected}
              now={now}
              busy={busy}
              onKey={
                mayChange
                  ? (make) => {
                      sign(selected.name, make);
                    }
                  : undefined
              }
            />
            <CameBack box={selected} zone={space.zone} busy={busy} onResume={mayResume ? resume : undefined} />
          </>
        ) : null}
      </section>
    </SettingsFrame>
  );
}

interface TableProps {
  readonly items: readonly MailboxShape[];
  readonly chosen: string | null;
  readonly onChoose: (name: string) => void;
}
function MailboxTable({ items, chosen, onChoose }: TableProps) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>mailbox</th>
          <th>leaves by</th>
          <th className="right">a day at most</th>
          <th className="right">to one person</th>
          <th>works</th>
          <th>used by</th>
        </tr>
      </thead>
      <tbody>
        {items.map((box) => (
          <tr
            key={box.name}
            className={`go${box.name === chosen ? ' on' : ''}`}
            onClick={() => {
              onChoose(box.name);
            }}
          >
            <td>
              <button className="linkish strong">{box.name}</button>
              <div className="quiet small">{box.address}</div>
            </td>
            <td className="quiet">{box.route === null ? 'the relay' : `${box.route.host}:${box.route.port}`}</td>
            <td className="right">
              {box.limitToday < box.dailyLimit ? `${box.limitToday} today of ` : ''}
              {box.dailyLimit}
            </td>
            <td className="right">{box.personGapDays === 0 ? 'any day' : `every ${box.personGapDays} days`}</td>
            <td>
              {box.rests !== null ? (
                <Tag tone="brick">rests</Tag>
              ) : box.checked === null ? (
                <span className="quiet nowrap">not checked</span>
              ) : (
                <Tag tone={box.checked.ok ? 'moss' : 'brick'}>{box.checked.ok ? 'sends' : 'does not send'}</Tag>
              )}
            </td>
            <td className="quiet">{box.usedBy.join(', ') || 'nothing'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface SendProps {
  readonly box: MailboxShape;
  readonly now: number;
  readonly busy: boolean;
  readonly onCheck: ((name: string) => void) | undefined;
}
/** When it was tried last, and how far it got. */
function DoesItSend({ box, now, busy, onCheck }: SendProps) {
  return (
    <>
      <div className="bar">
        <h2 className="grow">Does it send?</h2>
        <span className="quiet small">{box.checked === null ? 'never tried' : `tried ${agoText(box.checked.at, now)}`}</span>
        {onCheck ? (
          <Button
            variant={box.checked === null ? 'contained' : 'outlined'}
            disabled={busy}
            onClick={() => {
              onCheck(box.name);
            }}
          >
            {busy ? 'Trying…' : 'Check'}
          </Button>
        ) : null}
      </div>
      <ul className="check-steps">
        {(box.checked?.steps ?? []).map((step) => (
          <li key={step.what}>
            <span className={step.ok ? 'in-moss' : 'in-brick'}>{step.ok ? '✓' : '■'}</span> <span className="strong">{step.what}</span>{' '}
            {step.says}
          </li>
        ))}
        {box.checked === null ? (
          <li className="quiet">It is reached, signed in to, and writes one letter to itself; each step says what to do if it fails.</li>
        ) : null}
      </ul>
    </>
  );
}

const STANDS: Readonly<Record<MailboxShape['back']['standing'], readonly [tone: string, glyph: string]>> = {
  good: ['in-moss', '✓'],
  doubtful: ['in-brass', '◆'],
  'too many': ['in-brick', '■'],
};

interface BackProps {
  readonly box: MailboxShape;
  readonly zone: string;
  readonly busy: boolean;
  readonly onResume: ((name: string) => void) | undefined;
}
/** What came back of its last mails; a mailbox that rests for it waits for a person. */
function CameBack({ box: { name, back, rests }, zone, busy, onResume }: BackProps) {
  const [tone, glyph] = STANDS[back.standing];
  return (
    <>
      <div className="bar">
        <h2 className="grow">What comes back</h2>
        {rests !== null && onResume ? (
          <Button
            variant="contained"
            disabled={busy}
            onClick={() => {
              onResume(name);
            }}
          >
            Let it send again
          </Button>
        ) : null}
      </div>
      <ul className="check-steps">
        <li>
          <span className={tone}>{glyph}</span> {back.says}
          {back.standing === 'doubtful' ? ': servers begin to doubt a sender above one in twenty' : ''}
        </li>
        {rests === null ? (
          <li className="quiet">
            Above one in ten, and from five on, it rests by itself: what is planned keeps its order, and owners and builders are told.
          </li>
        ) : (
          <li>
            <span className="strong">It rests</span> since {dayTimeText(rests.since, zone)}: {rests.why}. Look where these addresses come
            from; what is planned leaves in its order once it may.
          </li>
        )}
      </ul>
    </>
  );
}
