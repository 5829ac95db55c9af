/** @jsxImportSource @emotion/react */
'use client';
import { Button, Switch, TextField } from '@mui/material';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, sayProblem } from '../../client';
import { useFields } from '../../client/fields';
import { euro } from '../../kit/format';
import { Notice } from '../../kit/parts';
import './research.css';
import { placed } from '../../kit/placed';

interface Source {
  readonly name: 'news' | 'register' | 'people' | 'jobs';
  readonly label: string;
  readonly priceMicro: number;
  readonly dayBudgetMicro?: number | undefined;
  readonly atOnce: number;
  readonly off: boolean;
}
interface Question {
  readonly id: string;
  readonly type: string;
  readonly wording: string;
}
export interface ResearchView {
  readonly sources: readonly Source[];
  readonly questions: readonly Question[];
}

const SAYS: Readonly<Record<Source['name'], string>> = {
  news: 'what is written about them',
  register: 'what they are registered as',
  people: 'who works there, with profiles',
  jobs: 'whom they are looking for',
};

/** Where dossiers look beside a company's own site, and what they ask of every company. */
export function Research({ research, mayChange }: { readonly research: ResearchView; readonly mayChange: boolean }) {
  const router = useRouter();
  const [draft, setDraft] = useState(research);
  const [problem, setProblem] = useState<string | null>(null);
  const changed = JSON.stringify(draft) !== JSON.stringify(research);
  const save = (): void => {
    const sources = draft.sources.map(({ dayBudgetMicro, ...source }) => ({
      ...source,
      ...(dayBudgetMicro !== undefined && { dayBudgetMicro }),
    }));
    call('saveResearchSettings', { body: { sources, questions: draft.questions.map((question) => ({ ...question })) } }).then(
      () => {
        setProblem(null);
        router.refresh();
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  const ask = (at: number, change: Partial<Question>): void => {
    setDraft({ ...draft, questions: draft.questions.map((question, i) => (i === at ? { ...question, ...change } : question)) });
  };
  return (
    <>
      <div className="bar ruled" css={placed({ marginTop: 14 })}>
        <h2 className="grow">Research</h2>
        {mayChange ? (
          <>
            <button
              className="linkish"
              onClick={() => {
                setDraft({ ...draft, questions: [...draft.questions, { id: '', type: 'text', wording: '' }] });
              }}
            >
              ask one more question
            </button>
            <Button variant="contained" disabled={!changed} onClick={save}>
              {changed ? 'Keep changes' : 'Kept'}
            </Button>
          </>
        ) : null}
      </div>
      {problem === null ? null : (
        <Notice
          onClose={() => {
            setProblem(null);
          }}
        >
          {problem}
        </Notice>
      )}
      <Sources draft={draft} onDraft={setDraft} mayChange={mayChange} />
      <div className="asked-of-all">
        <p className="quiet">Asked of every company in a dossier; an answer whose name is a field of the record is put there.</p>
        {draft.questions.map((question, i) => (
          <AskedOfAll
            key={i}
            question={question}
            isKept={research.questions.some((kept) => kept.id === question.id)}
            mayChange={mayChange}
            onChange={(change) => {
              ask(i, change);
            }}
            onDrop={() => {
              setDraft({ ...draft, questions: draft.questions.filter((_, other) => other !== i) });
            }}
          />
        ))}
      </div>
    </>
  );
}

interface SourcesProps {
  readonly draft: ResearchView;
  readonly onDraft: (draft: ResearchView) => void;
  readonly mayChange: boolean;
}
/** Where is looked, and what that costs. */
function Sources({ draft, onDraft, mayChange }: SourcesProps) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>looks at</th>
          <th>for</th>
          <th className="right">a search costs</th>
          <th className="right">at once</th>
          <th>asked</th>
        </tr>
      </thead>
      <tbody>
        {draft.sources.map((source) => (
          <tr key={source.name}>
            <td className="strong">{source.label}</td>
            <td className="quiet">{SAYS[source.name]}</td>
            <td className="right">{source.priceMicro === 0 ? 'nothing' : euro(source.priceMicro)}</td>
            <td className="right">{source.atOnce}</td>
            <td>
              <Switch
                checked={!source.off}
                disabled={!mayChange}
                onChange={(event) => {
                  const off = !event.target.checked;
                  onDraft({ ...draft, sources: draft.sources.map((other) => (other.name === source.name ? { ...other, off } : other)) });
                }}
                slotProps={{ input: { 'aria-label': `Ask ${source.label}` } }}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface AskedProps {
  readonly question: Question;
  readonly isKept: boolean;
  readonly mayChange: boolean;
  readonly onChange: (change: Partial<Question>) => void;
  readonly onDrop: () => void;
}
function AskedOfAll({ question, isKept, mayChange, onChange, onDrop }: AskedProps) {
  const fields = useFields();
  return (
    <div className="asked">
      <TextField
        label="Name"
        value={question.id}
        disabled={!mayChange}
        onChange={(event) => {
          onChange({ id: event.target.value.replace(/[^a-z0-9_]/gi, '_').toLowerCase() });
        }}
      />
      <TextField
        label="Kind of answer"
        value={question.type}
        disabled={!mayChange}
        onChange={(event) => {
          onChange({ type: event.target.value });
        }}
      />
      <TextField
        label="Question"
        value={question.wording}
        disabled={!mayChange}
        onChange={(event) => {
          onChange({ wording: event.target.value });
        }}
      />
      {isKept ? (
        <Link href={`/settings/questions/${question.id}`} className="teach-link">
          Words and examples
        </Link>
      ) : null}
      {question.id !== '' && !fields.of('company', question.id) && mayChange ? (
        <Link href={`/settings/fields?make=${encodeURIComponent(question.id.replace(/_/g, ' '))}`} className="teach-link">
          Make the field
        </Link>
      ) : null}
      {mayChange ? (
        <Button aria-label={`Ask “${question.id}” no more`} onClick={onDrop}>
          ✕
        </Button>
      ) : null}
    </div>
  );
}
