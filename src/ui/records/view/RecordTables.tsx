/** @jsxImportSource @emotion/react */
'use client';
import { isFigure, printValue, type FactValue } from '../../../core/fields';
import { useFields } from '../../client/fields';
import { ago } from '../../kit/format';
import Link from '../../kit/Link';
import { Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { SteadyBody } from '../../kit/SteadyBody';

type OwnValues = Readonly<Record<string, FactValue>>;

export interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly jobTitle: string | null;
  readonly email: string | null;
  readonly companyId: string | null;
  readonly companyName: string | null;
  readonly ownerName: string | null;
  readonly status: string | null;
  readonly createdAt: number;
}
export interface CompanyRow {
  readonly id: string;
  readonly name: string;
  readonly website: string | null;
  readonly city: string | null;
  readonly country: string | null;
  readonly own: OwnValues;
  readonly people: number;
  readonly createdAt: number;
}
interface PeopleProps {
  readonly items: readonly PersonRow[];
  readonly picked: ReadonlySet<string>;
  readonly onPick: (id: string) => void;
  readonly mayStart: boolean;
  readonly now: number;
}

/** People, newest first; those that are chosen stay chosen while the list moves. */
export function PeopleTable({ items, picked, onPick, mayStart, now }: PeopleProps) {
  return (
    <table className="plain">
      <thead>
        <tr>
          {mayStart ? <th css={placed({ width: 20 })} aria-label="Choose" /> : null}
          <th>name</th>
          <th>role</th>
          <th>company</th>
          <th>e-mail</th>
          <th>looked after by</th>
          <th>status</th>
          <th className="right">known for</th>
        </tr>
      </thead>
      <SteadyBody items={items} idOf={(person) => person.id}>
        {(person) => (
          <tr key={person.id} className={picked.has(person.id) ? 'on' : ''}>
            {mayStart ? (
              <td>
                <input
                  type="checkbox"
                  aria-label={`Choose ${person.name}`}
                  checked={picked.has(person.id)}
                  onChange={() => {
                    onPick(person.id);
                  }}
                />
              </td>
            ) : null}
            <td>
              <Link href={`/records/people/${person.id}`} className="strong" css={placed({ textDecoration: 'none' })}>
                {person.name}
              </Link>
            </td>
            <td className="quiet">{person.jobTitle}</td>
            <td>
              {person.companyId ? (
                <Link href={`/records/companies/${person.companyId}`} css={placed({ textDecoration: 'none' })}>
                  {person.companyName}
                </Link>
              ) : null}
            </td>
            <td>{person.email ?? <span className="in-brass small">none</span>}</td>
            <td className="quiet">{person.ownerName}</td>
            <td>{person.status ? <Tag>{person.status}</Tag> : null}</td>
            <td className="right quiet">{ago(person.createdAt, now)}</td>
          </tr>
        )}
      </SteadyBody>
    </table>
  );
}

/** Companies with the fields of the workspace's own that are listed. */
export function CompaniesTable({ items, now }: { readonly items: readonly CompanyRow[]; readonly now: number }) {
  const listed = useFields()
    .all('company')
    .filter((field) => field.isListed);
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>company</th>
          <th>site</th>
          <th>place</th>
          {listed.map((field) => (
            <th key={field.key} className={isFigure(field) ? 'right' : ''}>
              {field.label}
            </th>
          ))}
          <th className="right">people</th>
          <th className="right">known for</th>
        </tr>
      </thead>
      <SteadyBody items={items} idOf={(company) => company.id}>
        {(company) => (
          <tr key={company.id}>
            <td>
              <Link href={`/records/companies/${company.id}`} className="strong" css={placed({ textDecoration: 'none' })}>
                {company.name}
              </Link>
            </td>
            <td className="quiet">{company.website}</td>
            <td>{[company.city, company.country].filter(Boolean).join(', ')}</td>
            {listed.map((field) => (
              <td key={field.key} className={isFigure(field) ? 'right' : ''}>
                {company.own[field.key] === undefined ? <span className="quiet">–</span> : printValue(company.own[field.key], field.unit)}
              </td>
            ))}
            <td className="right">{company.people}</td>
            <td className="right quiet">{ago(company.createdAt, now)}</td>
          </tr>
        )}
      </SteadyBody>
    </table>
  );
}
