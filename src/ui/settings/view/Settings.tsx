/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { SLOT_MS } from '../../../core/calendar';
import Link from '../../kit/Link';
import { Tag, TopBar } from '../../kit/parts';
import { NotWrittenTo, type BarredView } from './NotWrittenTo';
import { Research, type ResearchView } from './Research';

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
  readonly doNotContact: readonly BarredView[];
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
        <NotWrittenTo first={doNotContact} zone={workspace.zone} mayChange={mayChange} />
      </div>
    </>
  );
}
