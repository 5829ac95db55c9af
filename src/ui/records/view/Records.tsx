/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { plural } from '../../../core/base';
import { Empty, Said, TopBar, type SaidText } from '../../kit/parts';
import { AddRecord } from './AddRecord';
import { ConditionField } from './ConditionField';
import { CompaniesTable, PeopleTable, type CompanyRow, type PersonRow } from './RecordTables';
import { PutInFlow, type FlowName } from '../../client/PutInFlow';
import { placed } from '../../kit/placed';

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
          <PutPicked
            picked={picked}
            flows={flows}
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
            <NothingFound search={search} where={where} />
          ) : list.kind === 'people' ? (
            <PeopleTable items={list.items} picked={picked} onPick={pick} mayStart={mayStart} now={now} />
          ) : (
            <CompaniesTable items={list.items} now={now} />
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

/** Why the list is empty, and what to do. */
function NothingFound({ search, where }: Pick<Props, 'search' | 'where'>) {
  return (
    <Empty title={where ? 'No record for which this holds' : search ? `Nothing with “${search}”` : 'No records yet'}>
      {where
        ? 'Loosen the condition. What is unknown about a record counts as “no”: “= null” finds those.'
        : search
          ? 'Look for a part of a name, a company or an e-mail address.'
          : 'Take in a list under Sources: people and companies come with every value’s source.'}
    </Empty>
  );
}

interface PickedProps extends Pick<Props, 'flows'> {
  readonly picked: ReadonlySet<string>;
  readonly onSaid: (said: SaidText) => void;
}
function PutPicked({ picked, flows, onSaid }: PickedProps) {
  return (
    <PutInFlow
      main
      label={`Put ${picked.size} in a flow`}
      flows={flows}
      recordIds={[...picked]}
      say={({ started, already }, flow) =>
        `${plural(started, 'person is', 'people are')} on the way through ${flow.name}${already > 0 ? `; ${already} were in it already and are not taken twice` : ''}.`
      }
      onSaid={onSaid}
    />
  );
}
