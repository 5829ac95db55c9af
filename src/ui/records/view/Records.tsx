/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useFields } from '../../client/fields';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { plural } from '../../../core/base';
import { isFigure, printValue, type FactValue } from '../../../core/fields';
import { ago } from '../../kit/format';
import { Empty, Said, Tag, TopBar, type SaidText } from '../../kit/parts';
import { SteadyBody } from '../../kit/SteadyBody';
import { AddRecord } from './AddRecord';
import { ConditionField } from './ConditionField';
import { PutInFlow, type FlowName } from '../../client/PutInFlow';
import { placed } from '../../kit/placed';

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
interface Props {
  readonly list:
    | { readonly kind: 'people'; readonly items: readonly PersonRow[] }
    | { readonly kind: 'companies'; readonly items: readonly CompanyRow[] };
  readonly next: string | null;
  readonly search: string;
  /** a condition as in flows, and how many records it holds for */
  readonly where: string;
  readonly found: number | null;
  /** the condition was refused by the server */
  readonly problem: string | null;
  readonly counts: { readonly people: number; readonly companies: number };
  readonly flows: readonly FlowName[];
  readonly now: number;
  readonly mayStart: boolean;
  readonly mayChange: boolean;
}

const SEARCH_AFTER_MS = 250;

/** People and companies, newest first, found by typing; many put into a flow at once. */
export function Records({ list, next, search, where, found, problem, counts, flows, now, mayStart, mayChange }: Props) {
  const fields = useFields();
  const listed = fields.all('company').filter((field) => field.isListed);
  const router = useRouter();
  const [typed, setTyped] = useState(search);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [said, setSaid] = useState<SaidText | null>(null);
  const [isAdding, setAdding] = useState(false);
  const href = (more: Readonly<Record<string, string>>): string => {
    const query = new URLSearchParams({
      ...(list.kind === 'companies' ? { kind: 'companies' } : {}),
      ...(typed.trim() === '' ? {} : { search: typed.trim() }),
      ...(where === '' ? {} : { where }),
      ...more,
    });
    return `/records?${query.toString()}`;
  };
  useEffect(() => {
    if (typed === search) return;
    const timer = setTimeout(() => {
      router.replace(href({}));
    }, SEARCH_AFTER_MS);
    return () => {
      clearTimeout(timer);
    };
  });
  const pick = (id: string): void => {
    setPicked((before) => (before.has(id) ? new Set([...before].filter((other) => other !== id)) : new Set([...before, id])));
  };
  return (
    <>
      <TopBar
        title="Records"
        tags={
          <div className="tabs" css={placed({ alignSelf: 'flex-end' })}>
            <Link href="/records" className={list.kind === 'people' ? 'on' : ''}>
              People {counts.people.toLocaleString('en-GB')}
            </Link>
            <Link href="/records?kind=companies" className={list.kind === 'companies' ? 'on' : ''}>
              Companies {counts.companies.toLocaleString('en-GB')}
            </Link>
          </div>
        }
      >
        {picked.size > 0 ? (
          <PutInFlow
            main
            label={`Put ${picked.size} in a flow`}
            flows={flows}
            recordIds={[...picked]}
            say={({ started, already }, flow) =>
              `${plural(started, 'person is', 'people are')} on the way through ${flow.name}${already > 0 ? `; ${already} were in it already and are not taken twice` : ''}.`
            }
            onSaid={(next) => {
              setSaid(next);
              if (next.calm) setPicked(new Set());
            }}
          />
        ) : null}
        <TextField
          placeholder={list.kind === 'people' ? 'Name, company or e-mail' : 'Name, site or place'}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
          }}
          sx={{ width: 240 }}
          slotProps={{ htmlInput: { 'aria-label': 'Search records' } }}
        />
        {mayChange && !isAdding ? (
          <Button
            onClick={() => {
              setAdding(true);
            }}
          >
            {list.kind === 'people' ? 'Add a person' : 'Add a company'}
          </Button>
        ) : null}
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      {isAdding ? (
        <AddRecord
          kind={list.kind === 'people' ? 'person' : 'company'}
          onClose={() => {
            setAdding(false);
          }}
        />
      ) : null}
      <ConditionField
        about={list.kind === 'people' ? 'person' : 'company'}
        condition={where}
        found={found}
        onAsk={(condition) => {
          const query = new URLSearchParams(href({}).split('?')[1]);
          if (condition === '') query.delete('where');
          else query.set('where', condition);
          router.replace(`/records?${query.toString()}`);
        }}
      />
      {problem === null ? null : (
        <p className="in-brick" css={placed({ padding: '10px 16px' })}>
          ■ {problem}
        </p>
      )}
      <div className="cols">
        <section className="col paper grow">
          {list.items.length === 0 ? (
            <Empty title={where ? 'No record for which this holds' : search ? `Nothing with “${search}”` : 'No records yet'}>
              {where
                ? 'Loosen the condition. What is unknown about a record counts as “no”: “= null” finds those.'
                : search
                  ? 'Look for a part of a name, a company or an e-mail address.'
                  : 'Take in a list under Sources: people and companies come with every value’s source.'}
            </Empty>
          ) : list.kind === 'people' ? (
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
              <SteadyBody items={list.items} idOf={(person) => person.id}>
                {(person) => (
                  <tr key={person.id} className={picked.has(person.id) ? 'on' : ''}>
                    {mayStart ? (
                      <td>
                        <input
                          type="checkbox"
                          aria-label={`Choose ${person.name}`}
                          checked={picked.has(person.id)}
                          onChange={() => {
                            pick(person.id);
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
          ) : (
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
              <SteadyBody items={list.items} idOf={(company) => company.id}>
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
                        {company.own[field.key] === undefined ? (
                          <span className="quiet">–</span>
                        ) : (
                          printValue(company.own[field.key], field.unit)
                        )}
                      </td>
                    ))}
                    <td className="right">{company.people}</td>
                    <td className="right quiet">{ago(company.createdAt, now)}</td>
                  </tr>
                )}
              </SteadyBody>
            </table>
          )}
          {next ? (
            <p css={placed({ padding: '10px 16px' })}>
              <Link href={href({ cursor: next })}>Older ones</Link>
            </p>
          ) : null}
        </section>
      </div>
    </>
  );
}
