/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import type { CorrectionsView, HoldRulesView } from '../../../api';
import { plural } from '../../../core/base';
import { call } from '../../client';
import { useFields } from '../../client/fields';
import { useAsk } from '../../client/use-ask';
import Link from '../../kit/Link';
import { Empty, Said, TopBar } from '../../kit/parts';
import { LOOKED_AT, ruleRows, withRule, type MailboxRules } from '../state/rules';
import { Agreements } from './Agreements';
import { RuleLines } from './RuleLines';
import { RuleTrial } from './RuleTrial';
import { Taught } from './Taught';
import '../../kit/own-field.css';
import './rules.css';

interface Props {
  readonly view: HoldRulesView;
  readonly taught: CorrectionsView['items'];
  readonly mayForget: boolean;
  /** the mailbox that is shown */
  readonly mailbox: string;
  readonly mayChange: boolean;
  readonly zone: string;
  /** the parts of Messages */
  readonly tabs: ReactNode;
}

/** When an answer waits for a person and when it goes alone: the rules of one mailbox, tried on what came before they are kept. */
export function HoldRules({ view, taught, mayForget, mailbox, mayChange, zone, tabs }: Props) {
  const box = view.mailboxes.find(({ name }) => name === mailbox) ?? view.mailboxes[0];
  return (
    <>
      <TopBar title="Messages" tags={tabs} />
      {box ? (
        <Rules key={`${box.name} ${box.no}`} box={box} view={view} mayChange={mayChange} zone={zone}>
          <Taught items={taught} mayForget={mayForget} />
        </Rules>
      ) : (
        <Empty title="There is no mailbox yet">
          Answers leave from a mailbox, and each has rules of its own. <Link href="/settings/mailboxes">Make one first</Link>.
        </Empty>
      )}
    </>
  );
}

function Rules({
  box,
  view,
  mayChange,
  zone,
  children,
}: {
  readonly box: MailboxRules;
  readonly view: HoldRulesView;
  readonly mayChange: boolean;
  readonly zone: string;
  readonly children: ReactNode;
}) {
  const router = useRouter();
  const fields = useFields();
  const { busy, said, hush, ask } = useAsk();
  const [rules, setRules] = useState(box.rules);
  const [lookedAt, setLookedAt] = useState(box.lookedAt);
  const rows = ruleRows(rules, fields);
  const isChanged = rules !== box.rules || lookedAt !== box.lookedAt;
  const isSound = rows.every(({ problem }) => problem === null);
  const keep = (): void => {
    ask(call('saveHoldRules', { body: { mailbox: box.name, rules, lookedAt, seen: box.no } }), 'These rules hold from now on.', () => {
      router.refresh();
    });
  };
  return (
    <>
      <Said said={said} onClose={hush} />
      <div className="cols">
        <section className="col paper grow hold-rules" tabIndex={0} aria-label={`Rules of ${box.name}`}>
          <div className="bar ruled">
            <h2>When an answer waits</h2>
            {view.mailboxes.length > 1 ? (
              <nav className="boxes" aria-label="Mailboxes">
                {view.mailboxes.map(({ name }) => (
                  <Link key={name} href={`/messages/rules?mailbox=${encodeURIComponent(name)}`} className={name === box.name ? 'on' : ''}>
                    {name}
                  </Link>
                ))}
              </nav>
            ) : (
              <span className="quiet">from {box.name}</span>
            )}
            <span className="grow" />
            <span className="quiet">{box.no === 0 ? 'nobody has written rules yet' : `version ${box.no}`}</span>
          </div>
          <p className="quiet lead">
            The first line that holds decides. What no line speaks of waits; so does, whatever the lines say, what nothing agreed covers,
            what failed a check, and who is angry.
          </p>
          <RuleLines text={rules} rows={rows} means={view.means} mayChange={mayChange} onChange={setRules} />
          <div className="looked">
            <label htmlFor="looked-at">Of what could go alone, a person looks all the same at</label>
            <select
              id="looked-at"
              className="own-field"
              value={String(lookedAt)}
              disabled={!mayChange}
              onChange={(event) => {
                setLookedAt(Number(event.target.value));
              }}
            >
              {LOOKED_AT.map(([share, says]) => (
                <option key={share} value={String(share)}>
                  {says}
                </option>
              ))}
            </select>
          </div>
          {mayChange ? (
            <div className="deeds">
              <Button variant="contained" disabled={busy || !isChanged || !isSound} onClick={keep}>
                Keep these rules
              </Button>
              <Button
                disabled={!isChanged}
                onClick={() => {
                  setRules(box.rules);
                  setLookedAt(box.lookedAt);
                }}
              >
                Back to what holds
              </Button>
              <span className="quiet small">
                {isChanged ? 'nothing has changed for anybody yet' : `${plural(box.decided, 'draft')} decided by people so far`}
              </span>
            </div>
          ) : (
            <p className="quiet lead">Your role may look, not change.</p>
          )}
          <Agreements
            agreements={box.agreements}
            onOffer={
              mayChange
                ? (rule) => {
                    setRules(withRule(rules, rule));
                  }
                : undefined
            }
          />
          {children}
          <Versions
            versions={box.versions}
            onTake={
              mayChange
                ? (version) => {
                    setRules(version.rules);
                    setLookedAt(version.lookedAt);
                  }
                : undefined
            }
          />
        </section>
        <RuleTrial mailbox={box.name} rules={rules} lookedAt={lookedAt} isChanged={isChanged} zone={zone} />
      </div>
    </>
  );
}

type Version = MailboxRules['versions'][number];
function Versions({
  versions,
  onTake,
}: {
  readonly versions: readonly Version[];
  readonly onTake: ((version: Version) => void) | undefined;
}) {
  if (versions.length < 2) return null;
  return (
    <details className="versions">
      <summary>{plural(versions.length - 1, 'earlier version')}</summary>
      {versions.slice(1).map((version) => (
        <div key={version.no} className="version">
          <span className="strong">{version.no}</span>
          <span className="grow cut" title={version.rules}>
            {version.rules === '' ? 'no rules' : version.rules.replace(/\n/g, ' · ')}
          </span>
          <span className="quiet">{version.savedBy ?? 'as it came'}</span>
          {onTake ? (
            <button
              className="linkish"
              onClick={() => {
                onTake(version);
              }}
            >
              write it again
            </button>
          ) : null}
        </div>
      ))}
    </details>
  );
}
