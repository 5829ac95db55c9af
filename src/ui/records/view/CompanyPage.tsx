/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { plural } from '../../../core/base';
import { dayText } from '../../kit/format';
import { Tag, TopBar } from '../../kit/parts';
import { timeline } from '../state/group';
import type { Happening, KnownField } from '../state/types';
import { Known } from './Known';
import './records.css';
import { Timeline } from './Timeline';
import { placed } from '../../kit/placed';

interface Props {
  readonly company: {
    readonly id: string;
    readonly name: string;
    readonly city: string | null;
    readonly country: string | null;
    readonly status: string | null;
  };
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly jobTitle: string | null;
    readonly email: string | null;
  }[];
  readonly known: readonly KnownField[];
  readonly happened: readonly Happening[];
  readonly deals: readonly {
    readonly id: string;
    readonly title: string;
    readonly stage: string;
    readonly stageSince: number;
    readonly ownerName: string | null;
  }[];
  readonly now: number;
  readonly zone: string;
  readonly mayChange: boolean;
}

/** A company: what we know, what happened with its people, who they are. */
export function CompanyPage({ company, people, known, happened, deals, now, zone, mayChange }: Props) {
  return (
    <>
      <TopBar
        path={<Link href="/records?kind=companies">Companies</Link>}
        title={company.name}
        tags={
          <span className="quiet cut">
            {[company.city, company.country].filter(Boolean).join(', ')} {company.status ? <Tag>{company.status}</Tag> : null}
          </span>
        }
      >
        <Button component={Link} href={`/records/companies/${company.id}/dossier`}>
          Dossier
        </Button>
      </TopBar>
      <div className="cols">
        <section className="col paper" css={placed({ flex: '0 0 430px' })}>
          <Known known={known} of={[{ record: 'company', id: company.id }]} now={now} mayChange={mayChange} />
        </section>
        <section className="col" css={placed({ flex: '1 1 384px' })}>
          <Timeline items={timeline(happened, [], company.name)} now={now} zone={zone} noteOn={undefined} />
        </section>
        <section className="col paper" css={placed({ flex: '0 0 290px' })}>
          <div className="bar">
            <h2 className="grow">People</h2>
            <span className="quiet">{plural(people.length, 'person', 'people')}</span>
          </div>
          {people.map((person) => (
            <div key={person.id} className="next-block">
              <Link href={`/records/people/${person.id}`} className="strong">
                {person.name}
              </Link>
              <div className="quiet cut">{person.jobTitle ?? person.email ?? 'no role known'}</div>
            </div>
          ))}
          {deals.map((deal) => (
            <div key={deal.id} className="next-block">
              <Link href={`/pipeline/${deal.id}`} className="strong">
                ▤ {deal.title}
              </Link>
              <div className="quiet">
                {deal.stage} since {dayText(deal.stageSince, zone)}
                {deal.ownerName ? ` · ${deal.ownerName}` : ''}
              </div>
            </div>
          ))}
        </section>
      </div>
    </>
  );
}
