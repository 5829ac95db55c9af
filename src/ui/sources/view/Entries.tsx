'use client';
import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Answer } from '../../../api';
import { clip } from '../../../core/base';
import { sayProblem } from '../../client';
import { dayTimeText, scalarText, kb } from '../../kit/format';
import Link from '../../kit/Link';
import { Empty, Tag, type SaidText } from '../../kit/parts';

export type EntryView = Answer<'listEntries'>['items'][number];

type FileView = EntryView['files'][number];

/** Why nothing of a paper could be read: it stands where its text would, “(cv.docx: this document …)”. */
function unreadOf(name: string, text: unknown): string | null {
  if (typeof text !== 'string') return null;
  const from = text.indexOf(`(${name}: `);
  const to = from < 0 ? -1 : text.indexOf(')', from + name.length);
  return to < 0 ? null : text.slice(from + name.length + 3, to);
}

function Unread({ says }: { readonly says: string | null }) {
  return says === null ? null : <div className="in-brick">■ not read: {says}</div>;
}

/** What stands in a paper where nobody sees it is shown to who reads it, and to nobody else. */
function Hidden({ hidden }: Pick<FileView, 'hidden'>) {
  return hidden.map(({ text, why }) => (
    <div key={why} className="in-brick">
      ■ hidden text, not read ({why}): <q>{clip(text, HIDDEN_SHOWN)}</q>
    </div>
  ));
}
const HIDDEN_SHOWN = 160;

/** An answer as it is called on this page. */
export interface AnswerName {
  readonly id: string;
  readonly label: string;
  readonly unit?: string | undefined;
  /** can be mended by hand when its entry was refused */
  readonly mendable: boolean;
}
export type Mender = (
  id: string,
  raw: Readonly<Record<string, string>>,
) => Promise<{
  readonly ok: boolean;
  readonly why: string;
  readonly problems?: readonly { readonly question: string; readonly says: string }[];
}>;

interface Props {
  readonly entries: readonly EntryView[];
  readonly questions: readonly AnswerName[];
  readonly zone: string;
  /** undefined: who looks may mend nothing */
  readonly mend: Mender | undefined;
  /** may open the papers that came along */
  readonly mayOpen: boolean;
  readonly empty: string;
  readonly onSaid: (said: SaidText) => void;
}

/** Everything that was sent, as it came; what was refused can be mended and brought again. */
export function Entries({ empty, ...table }: Props) {
  if (table.entries.length === 0) return <Empty title="Nothing has come in yet">{empty}</Empty>;
  return (
    <div className="cols">
      <section className="col paper grow">
        <EntryTable {...table} />
      </section>
    </div>
  );
}

/** The entries of a door as a table; a refused one is mended in place. */
export function EntryTable({ entries, questions, zone, mend, mayOpen, onSaid }: Omit<Props, 'empty'>) {
  const [open, setOpen] = useState<string | null>(null);
  if (entries.length === 0) return <p className="empty">Nothing yet.</p>;
  return (
    <table className="plain">
      <thead>
        <tr>
          <th className="right">no.</th>
          <th>received</th>
          <th>became</th>
          <th>answers</th>
          <th>files</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {entries.map((entry) => (
          <Row
            key={entry.id}
            entry={entry}
            questions={questions}
            zone={zone}
            open={open === entry.id}
            mend={mend}
            mayOpen={mayOpen}
            onToggle={() => {
              setOpen(open === entry.id ? null : entry.id);
            }}
            onSaid={onSaid}
          />
        ))}
      </tbody>
    </table>
  );
}

function Row({
  entry,
  questions,
  zone,
  open,
  mend,
  mayOpen,
  onToggle,
  onSaid,
}: {
  readonly entry: EntryView;
  readonly questions: readonly AnswerName[];
  readonly zone: string;
  readonly open: boolean;
  readonly mend: Mender | undefined;
  /** may open the papers that came along */
  readonly mayOpen: boolean;
  readonly onToggle: () => void;
  readonly onSaid: (said: SaidText) => void;
}) {
  const told = questions.filter((question) => scalarText(entry.answers[question.id]) !== '');
  return (
    <>
      <tr>
        <td className="right">{entry.no}</td>
        <td className="nowrap">{dayTimeText(entry.receivedAt, zone)}</td>
        <td>
          {entry.personId === null ? (
            <>
              <Tag tone="brick">■ refused</Tag> <span className="small">{entry.why}</span>
            </>
          ) : (
            <>
              <Link href={`/records/people/${entry.personId}`} className="strong">
                {entry.personName}
              </Link>
              <div className="small quiet">{entry.why}</div>
            </>
          )}
        </td>
        <td className="small">
          {told.slice(0, open ? 50 : 3).map((question) => (
            <div key={question.id}>
              <span className="quiet">{question.label}</span> {scalarText(entry.answers[question.id])} {question.unit ?? ''}
            </div>
          ))}
          {told.length > 3 ? (
            <button className="linkish" aria-expanded={open} onClick={onToggle}>
              {open ? 'fewer' : `${told.length - 3} more`}
            </button>
          ) : null}
        </td>
        <td className="small">
          {entry.files.map((file) => (
            <div key={file.id}>
              {mayOpen ? <a href={`/api/v1/files/${file.id}`}>{file.name}</a> : file.name} <span className="quiet">{kb(file.size)}</span>
              <Unread says={unreadOf(file.name, entry.answers[file.question])} />
              <Hidden hidden={file.hidden} />
            </div>
          ))}
        </td>
        <td className="right">
          {entry.state === 'refused' && mend ? (
            <Button onClick={onToggle} aria-expanded={open}>
              Mend
            </Button>
          ) : null}
        </td>
      </tr>
      {open && entry.state === 'refused' && mend ? (
        <tr>
          <td />
          <td colSpan={5}>
            <Mend entry={entry} questions={questions} mend={mend} onSaid={onSaid} />
          </td>
        </tr>
      ) : null}
    </>
  );
}

function Mend({
  entry,
  questions,
  mend,
  onSaid,
}: {
  readonly entry: EntryView;
  readonly questions: readonly AnswerName[];
  readonly mend: Mender;
  readonly onSaid: (said: SaidText) => void;
}) {
  const router = useRouter();
  const [raw, setRaw] = useState(entry.raw);
  const [problems, setProblems] = useState<readonly { readonly question: string; readonly says: string }[]>([]);
  const bring = (): void => {
    mend(entry.id, raw).then(
      (answer) => {
        setProblems(answer.problems ?? []);
        onSaid({ calm: answer.ok, text: answer.ok ? `Entry ${entry.no} is taken in.` : `Entry ${entry.no}: ${answer.why}.` });
        if (answer.ok) router.refresh();
      },
      (error: unknown) => {
        onSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  return (
    <form
      className="mend"
      onSubmit={(event) => {
        event.preventDefault();
        bring();
      }}
    >
      {questions
        .filter((question) => question.mendable)
        .map((question) => {
          const problem = problems.find((found) => found.question === question.id);
          return (
            <TextField
              key={question.id}
              label={question.label}
              value={raw[question.id] ?? ''}
              error={problem !== undefined}
              helperText={problem?.says}
              onChange={(event) => {
                setRaw((before) => ({ ...before, [question.id]: event.target.value }));
              }}
            />
          );
        })}
      <Button type="submit" variant="contained">
        Bring it again
      </Button>
    </form>
  );
}
