/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { plural } from '../../../core/base';
import Link from '../../kit/Link';
import { Tag, TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { isOfCompanies } from '../../../core/intake';
import { alsoMade, kindsOf } from '../state/preview';
import type { ListStatus } from './useTakeIn';

/** A list that is being taken in, and how it ended. */
export function TakeInProgress({ status }: { readonly status: ListStatus }) {
  const share = status.total === 0 ? 0 : status.doneRows / status.total;
  const done = status.state === 'done';
  const ofCompanies = isOfCompanies(status.matching);
  const { newDeals = 0, newApplications = 0 } = status.counts;
  const also = alsoMade({ newDeals, newApplications });
  return (
    <>
      <TopBar path={<Link href="/sources">Sources</Link>} title={status.label} tags={<Tag>{status.fileName}</Tag>}>
        {status.flowId ? (
          <Button component={Link} href={`/flows/${status.flowId}`} variant="contained">
            Open the flow
          </Button>
        ) : null}
      </TopBar>
      <div className="cols">
        <section className="col paper grow" css={placed({ padding: 24 })}>
          <h2 role="status">
            {done
              ? `Taken in: ${plural(status.total, 'row')}`
              : `Taking in ${status.doneRows.toLocaleString('en-GB')} of ${plural(status.total, 'row')} …`}
          </h2>
          <div css={placed({ height: 10, background: 'var(--line2)', margin: '10px 0 16px', maxWidth: 520 })}>
            <div css={placed({ height: 10, width: `${(done ? 1 : share) * 100}%`, background: 'var(--w4)' })} />
          </div>
          {done ? (
            <table className="plain" css={placed({ maxWidth: 520 })}>
              <tbody>
                {kindsOf(ofCompanies).map((entry) => (
                  <tr key={entry.kind}>
                    <td>{entry.label}</td>
                    <td className="right strong">{status.counts[entry.kind] ?? 0}</td>
                  </tr>
                ))}
                {also ? (
                  <tr>
                    <td colSpan={2}>and {also}</td>
                  </tr>
                ) : null}
              </tbody>
            </table>
          ) : (
            <p className="quiet">You can leave this page: the worker goes on by itself.</p>
          )}
          {done && (status.counts.refused ?? 0) > 0 ? (
            <p css={placed({ marginTop: 14 })}>
              <a href={`/api/v1/imports/${status.id}/refused.csv`}>Refused rows as a file</a>{' '}
              <span className="quiet">with the reason, to be mended and brought again</span>
            </p>
          ) : null}
          {done ? (
            <p css={placed({ marginTop: 14 })}>
              <Link href={ofCompanies ? '/records?kind=companies' : '/records'}>See the {ofCompanies ? 'companies' : 'people'}</Link> ·{' '}
              {newDeals > 0 ? (
                <>
                  <Link href="/pipeline">See the deals</Link> ·{' '}
                </>
              ) : null}
              {newApplications > 0 ? (
                <>
                  <Link href="/openings">See the applications</Link> ·{' '}
                </>
              ) : null}
              <Link href="/">Go to the desk</Link>
            </p>
          ) : null}
        </section>
      </div>
    </>
  );
}
