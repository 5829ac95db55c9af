/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { SLOT_MS } from '../../../core/calendar';
import { dayTimeText } from '../../kit/format';
import Link from '../../kit/Link';
import { Tag, TopBar } from '../../kit/parts';
import { Research, type ResearchView } from './Research';
import { placed } from '../../kit/placed';

interface Props {
  readonly workspace: {
    readonly name: string;
    readonly zone: string;
    readonly daysOff: readonly string[];
    readonly defaultCountry: string;
  };
  readonly mailboxes: readonly {
    readonly name: string;
    readonly address: string;
    readonly zone: string;
    readonly dailyLimit: number;
    readonly personGapDays: number;
  }[];
  readonly users: readonly {
    readonly id: string;
    readonly name: string;
    readonly email: string;
    readonly role: string;
    readonly title: string;
    readonly may: readonly string[];
  }[];
  readonly research: ResearchView;
  readonly mayChange: boolean;
  readonly mayReadAudit: boolean;
  readonly doNotContact: readonly { readonly email: string; readonly why: string; readonly at: number }[];
}

/** What holds for the whole workspace: limits, who is not written to any more, who may do what. */
export function Settings({ workspace, mailboxes, users, doNotContact, research, mayChange, mayReadAudit }: Props) {
  return (
    <>
      <TopBar
        title="Settings"
        tags={
          <span className="quiet">
            {workspace.name} · zone {workspace.zone}
          </span>
        }
      >
        <Button component={Link} href="/settings/fields">
          Fields
        </Button>
        {mayReadAudit ? (
          <Button component={Link} href="/audit">
            Audit
          </Button>
        ) : null}
      </TopBar>
      <div className="cols">
        <section className="col paper grow" tabIndex={0} aria-label="Overview">
          <div className="bar ruled">
            <h2>Mailboxes and limits</h2>
          </div>
          <table className="plain">
            <thead>
              <tr>
                <th>mailbox</th>
                <th>address</th>
                <th className="right">a day at most</th>
                <th className="right">between two mails</th>
                <th className="right">to one person, across flows</th>
                <th>days off</th>
              </tr>
            </thead>
            <tbody>
              {mailboxes.map((box) => (
                <tr key={box.name}>
                  <td className="strong">{box.name}</td>
                  <td>{box.address}</td>
                  <td className="right">{box.dailyLimit}</td>
                  <td className="right">{SLOT_MS / 60_000} min</td>
                  <td className="right">every {box.personGapDays} days</td>
                  <td className="quiet">{workspace.daysOff.join(', ') || 'none'}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Research key={JSON.stringify(research)} research={research} mayChange={mayChange} />
          <div className="bar ruled">
            <h2>People and roles</h2>
          </div>
          <table className="plain">
            <thead>
              <tr>
                <th>name</th>
                <th>e-mail</th>
                <th>role</th>
                <th>may</th>
              </tr>
            </thead>
            <tbody>
              {users.map((user) => (
                <tr key={user.id}>
                  <td className="strong">{user.name}</td>
                  <td>{user.email}</td>
                  <td>
                    <Tag tone="river">{user.role}</Tag> <span className="quiet small">{user.title}</span>
                  </td>
                  <td className="quiet">{user.may.join(', ')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        <aside className="col" css={placed({ width: 420, flex: 'none' })} tabIndex={0} aria-label="Not written to any more">
          <div className="bar ruled">
            <h2 className="grow">Not written to any more</h2>
            <span className="quiet">{doNotContact.length}</span>
          </div>
          {doNotContact.map((entry) => (
            <div key={entry.email} css={placed({ padding: '6px 16px', borderBottom: '1px solid var(--line2)' })}>
              <span className="strong">{entry.email}</span>
              <div className="quiet small">
                {entry.why} · {dayTimeText(entry.at, workspace.zone)}
              </div>
            </div>
          ))}
          {doNotContact.length === 0 ? (
            <p className="quiet" css={placed({ padding: '10px 16px' })}>
              Nobody yet. Who unsubscribes, or whose mail comes back for good, is put here at once; no flow can switch that off.
            </p>
          ) : null}
        </aside>
      </div>
    </>
  );
}
