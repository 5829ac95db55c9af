/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { DropFile } from '../../kit/DropFile';
import { ago, countText } from '../../kit/format';
import { GoRow, Problem, Tag, TopBar } from '../../kit/parts';
import { Doors, type DoorLine } from './Doors';
import { placed } from '../../kit/placed';

export interface ListView {
  readonly id: string;
  readonly fileName: string;
  readonly label: string;
  readonly state: 'looked at' | 'queued' | 'running' | 'done' | 'failed';
  readonly total: number;
  readonly doneRows: number;
  readonly counts: Readonly<Record<string, number>>;
  readonly createdAt: number;
}

/** Where records come in: forms, and lists to drop here. */
export function Sources({
  lists,
  doors,
  now,
  aside,
  mayTakeIn,
}: {
  readonly lists: readonly ListView[];
  readonly doors: readonly DoorLine[];
  readonly now: number;
  /** mails and meetings that could not be taken */
  readonly aside: number;
  readonly mayTakeIn: boolean;
}) {
  const router = useRouter();
  const [busy, setBusy] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const bring = (file: File): void => {
    setBusy(file.name);
    setProblem(null);
    call('uploadList', { query: { name: file.name }, file }).then(
      (preview) => {
        router.push(`/sources/${preview.import.id}`);
      },
      (error: unknown) => {
        setBusy(null);
        setProblem(sayProblem(error));
      },
    );
  };
  return (
    <>
      <TopBar title="Sources" tags={<span className="quiet">where people and companies come in</span>}>
        {mayTakeIn && aside > 0 ? (
          <Button component={Link} href="/sources/set-aside" className="in-brass">
            {aside.toLocaleString('en-GB')} set aside
          </Button>
        ) : null}
        {mayTakeIn ? (
          <Button component={Link} href="/sources/directory">
            Search the directory
          </Button>
        ) : null}
      </TopBar>
      <Problem
        says={problem}
        onClose={() => {
          setProblem(null);
        }}
      />
      <div className="cols">
        <section className="col paper grow">
          {mayTakeIn ? (
            <DropFile
              title={busy ? `Looking at ${busy} …` : 'Drop a list here: people, companies, deals or applications'}
              accept=".csv,.txt,.tsv,.vcf,.xlsx,.ods,.zip,text/csv,text/vcard"
              label="List file"
              disabled={busy !== null}
              onFile={bring}
            >
              CSV with any headings, any delimiter, any encoding, a spreadsheet (XLSX, ODS), vCards, or one of these in a ZIP. You see what
              will happen with every row before anything is changed.
            </DropFile>
          ) : null}
          <Doors doors={doors} now={now} mayTakeIn={mayTakeIn} onProblem={setProblem} />
          <div className="bar ruled" css={placed({ marginTop: 14 })}>
            <h2>Lists taken in</h2>
          </div>
          {lists.length === 0 ? (
            <p className="empty">No list yet. Drop one above: nothing is changed before you have seen what becomes of every row.</p>
          ) : (
            <ListTable lists={lists} now={now} />
          )}
        </section>
      </div>
    </>
  );
}

function ListTable({ lists, now }: { readonly lists: readonly ListView[]; readonly now: number }) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>list</th>
          <th>state</th>
          <th className="right">rows</th>
          <th className="right">new</th>
          <th className="right">known</th>
          <th className="right">perhaps</th>
          <th className="right">refused</th>
          <th className="right">taken in</th>
        </tr>
      </thead>
      <tbody>
        {lists.map((list) => (
          <GoRow key={list.id} href={`/sources/${list.id}`}>
            <td>
              <Link href={`/sources/${list.id}`} className="strong" css={placed({ textDecoration: 'none' })}>
                {list.label}
              </Link>{' '}
              <span className="quiet small">{list.fileName}</span>
            </td>
            <td>
              {list.state === 'done' ? (
                <Tag tone="moss">✓ done</Tag>
              ) : list.state === 'failed' ? (
                <Tag tone="brick">■ failed</Tag>
              ) : (
                <Tag tone="river">
                  ≋ {list.doneRows} of {plural(list.total, 'row')}
                </Tag>
              )}
            </td>
            <td className="right">{list.total.toLocaleString('en-GB')}</td>
            {['new', 'known', 'perhaps', 'refused'].map((kind) => (
              <td key={kind} className="right">
                {kind in list.counts ? countText(list.counts[kind] ?? 0) : '–'}
              </td>
            ))}
            <td className="right quiet">{ago(list.createdAt, now)}</td>
          </GoRow>
        ))}
      </tbody>
    </table>
  );
}
