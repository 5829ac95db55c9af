/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { AnsweredView, ThingView } from '../../../api';
import { OBJECTIONS, OTHER_KINDS, type AgreedAnswer } from '../../../core/answers';
import { dayTimeText } from '../../kit/format';
import Link from '../../kit/Link';
import { linesIn } from '../../kit/lines';
import { LANGUAGES } from '../../kit/languages';
import { placed } from '../../kit/placed';
import { TextArea } from '../../kit/TextArea';
import { problemsAt } from '../state/thing';
import { useThing } from './useThing';
import { BenchFrame } from './BenchFrame';
import { At } from './ThingSide';

interface Props {
  readonly first: ThingView;
  /** the last conversations answered with it */
  readonly answered: readonly AnsweredView[];
  readonly zone: string;
  readonly mayChange: boolean;
}

/** An agreed answer: to what, when it fits, in which words, and what may not be said; and what came of it. */
export function AnswerBench({ first, answered, zone, mayChange }: Props) {
  const state = useThing<AgreedAnswer>(first);
  const { body: answer, trial, set } = state;
  const problems = trial?.problems ?? [];
  return (
    <BenchFrame
      state={state}
      zone={zone}
      mayChange={mayChange}
      label="Agreed answer"
      sideLabel="What came of it"
      side={
        <>
          {' '}
          <h2 className="side-head">Answered with it</h2>
          {answered.length === 0 ? <p className="quiet small">No answer has left with it yet.</p> : null}
          <ul className="plain-list">
            {answered.map((use) => (
              <li key={use.messageId}>
                <Link href={`/messages/${use.threadId}`}>{use.personName}</Link>{' '}
                <span className="quiet small">
                  {use.companyName ?? ''} {dayTimeText(use.at, zone)}
                </span>
                <div className="small">{use.theirs ? `“${use.theirs}”` : ''}</div>
                <div className={use.then === null ? 'quiet small' : 'small in-moss'}>
                  {use.then === null ? 'no answer yet' : `then: ${use.then}`}
                </div>
              </li>
            ))}
          </ul>
        </>
      }
    >
      <div className="head-row">
        <h2>What they say</h2>
      </div>
      <div css={placed({ display: 'grid', gridTemplateColumns: '240px minmax(0, 1fr)', gap: 12, alignItems: 'start' })}>
        <TextField
          label="an objection, a kind or a topic"
          value={answer.about}
          disabled={!mayChange}
          slotProps={{ htmlInput: { list: 'objections', maxLength: 60 } }}
          onChange={(event) => {
            set({ ...answer, about: event.target.value });
          }}
        />
        <datalist id="objections">
          {[...OBJECTIONS, ...OTHER_KINDS].map((objection) => (
            <option key={objection} value={objection} />
          ))}
        </datalist>
        <Lines
          label="how people ask it, one a line, in any language"
          value={answer.asks}
          disabled={!mayChange}
          onChange={(asks) => {
            set({ ...answer, asks });
          }}
        />
      </div>
      <At problems={problemsAt(problems, 'asks')} />
      <div className="head-row">
        <h2>When it fits</h2>
        <span className="quiet small">a condition, as in flows; empty: always</span>
      </div>
      <TextField
        fullWidth
        placeholder="company.employees >= 20"
        value={answer.when}
        disabled={!mayChange}
        slotProps={{ htmlInput: { 'aria-label': 'When it fits' } }}
        onChange={(event) => {
          set({ ...answer, when: event.target.value });
        }}
      />
      <At problems={problemsAt(problems, 'when')} />
      <Texts answer={answer} problems={problems} mayChange={mayChange} onChange={set} />
      <div className="head-row">
        <h2>What may not be said</h2>
        <span className="quiet small">words that stop the message, whoever wrote them</span>
      </div>
      <Lines
        label="one a line"
        value={answer.notSay}
        disabled={!mayChange}
        onChange={(notSay) => {
          set({ ...answer, notSay });
        }}
      />
    </BenchFrame>
  );
}

/** Lines as they are typed; what is kept are those that say something. */
function Lines({
  label,
  value,
  disabled,
  onChange,
}: {
  readonly label: string;
  readonly value: readonly string[];
  readonly disabled: boolean;
  readonly onChange: (lines: string[]) => void;
}) {
  const [typed, setTyped] = useState(value.join('\n'));
  // An undo or an older version brings other lines than were typed.
  const shown = JSON.stringify(linesIn(typed)) === JSON.stringify(value) ? typed : value.join('\n');
  return (
    <TextArea
      label={label}
      shown
      rows={2}
      value={shown}
      disabled={disabled}
      onChange={(text) => {
        setTyped(text);
        onChange(linesIn(text));
      }}
    />
  );
}

function Texts({
  answer,
  problems,
  mayChange,
  onChange,
}: {
  readonly answer: AgreedAnswer;
  readonly problems: Parameters<typeof problemsAt>[0];
  readonly mayChange: boolean;
  readonly onChange: (answer: AgreedAnswer) => void;
}) {
  const put = (i: number, text: Partial<AgreedAnswer['texts'][number]>): void => {
    onChange({ ...answer, texts: answer.texts.map((entry, k) => (k === i ? { ...entry, ...text } : entry)) });
  };
  const free = LANGUAGES.find(([code]) => !answer.texts.some((text) => text.language === code));
  return (
    <>
      <div className="head-row">
        <h2>Our words</h2>
        <span className="quiet small">
          slots such as {'{company.name}'} take the reader’s values; a sentence without its value is left out; greeting and name come by
          themselves
        </span>
      </div>
      {answer.texts.map((text, i) => (
        <div key={text.language} css={placed({ display: 'grid', gridTemplateColumns: '130px minmax(0, 1fr)', gap: 12, marginBottom: 10 })}>
          <div>
            <TextField
              select
              fullWidth
              value={text.language}
              disabled={!mayChange}
              slotProps={{ htmlInput: { 'aria-label': `Language of text ${i + 1}` } }}
              onChange={(event) => {
                put(i, { language: event.target.value });
              }}
            >
              {LANGUAGES.map(([code, name]) => (
                <MenuItem key={code} value={code}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
            {answer.texts.length > 1 && mayChange ? (
              <button
                className="linkish small"
                onClick={() => {
                  onChange({ ...answer, texts: answer.texts.filter((_, k) => k !== i) });
                }}
              >
                take out
              </button>
            ) : null}
          </div>
          <div>
            <TextArea
              label={`Words in ${text.language}`}
              value={text.body}
              disabled={!mayChange}
              onChange={(words) => {
                put(i, { body: words });
              }}
            />
            <At problems={problemsAt(problems, `texts.${i}`)} />
          </div>
        </div>
      ))}
      {free && mayChange ? (
        <Button
          size="small"
          onClick={() => {
            onChange({ ...answer, texts: [...answer.texts, { language: free[0], body: answer.texts[0]?.body ?? '' }] });
          }}
        >
          Add {free[1]}
        </Button>
      ) : null}
    </>
  );
}
