'use client';
import { TextField } from '@mui/material';
import { learntIn, type QuestionDraft, type QuestionView } from '../state/teach';
import { Phrases } from './Phrases';

/** A whole figure within bounds, or none; what is neither is not taken. */
function Figure({
  value,
  usual,
  label,
  most,
  onChange,
}: {
  readonly value: number | null;
  readonly usual: string;
  readonly label: string;
  readonly most: number;
  readonly onChange: ((value: number | null) => void) | undefined;
}) {
  return (
    <TextField
      size="small"
      value={value === null ? '' : String(value)}
      placeholder={usual}
      disabled={onChange === undefined}
      slotProps={{ htmlInput: { 'aria-label': label, inputMode: 'numeric', className: 'percent' } }}
      onChange={(event) => {
        const typed = Number(event.target.value);
        if (event.target.value === '') onChange?.(null);
        else if (Number.isInteger(typed) && typed >= 0 && typed <= most) onChange?.(typed);
      }}
    />
  );
}

/** What is known of a question: when an answer counts, the words it goes by, what is not meant, and what examples taught. */
export function QuestionKnown({
  view,
  onChange,
}: {
  readonly view: QuestionView;
  readonly onChange: ((next: QuestionDraft) => void) | undefined;
}) {
  const { draft, options } = view;
  return (
    <section className="col" aria-label="The question">
      <h2>The question</h2>
      <dl className="facts-of">
        <dt>answer</dt>
        <dd>{view.type}</dd>
        <dt>goes to</dt>
        <dd className="code">company.{view.id}</dd>
        <dt>taken from</dt>
        <dd>
          <Figure
            value={draft.least === null ? null : Math.round(draft.least * 100)}
            usual={String(Math.round(view.usualLeast * 100))}
            label="Least confidence in percent"
            most={100}
            onChange={onChange && ((percent) => onChange({ ...draft, least: percent === null ? null : percent / 100 }))}
          />{' '}
          % sure
        </dd>
        <dt>not older than</dt>
        <dd>
          <Figure
            value={draft.months}
            usual="any"
            label="Oldest statement in months"
            most={240}
            onChange={onChange && ((months) => onChange({ ...draft, months: months === 0 ? null : months }))}
          />{' '}
          months
        </dd>
      </dl>
      <Phrases
        title="Words it goes by"
        add="word or phrase"
        list={draft.words}
        onChange={onChange && ((words) => onChange({ ...draft, words }))}
      />
      <Phrases
        title="Does not count"
        add="what else is not meant"
        list={draft.not}
        onChange={onChange && ((not) => onChange({ ...draft, not }))}
      />
      {options.length > 0 ? <Options view={view} onChange={onChange} /> : null}
      <h2>Learnt from examples</h2>
      {view.learnt.length === 0 ? (
        <p className="quiet">
          {draft.shown.length === 0 ? 'Nothing yet: show an answer on a page, or show a wrong one.' : 'Your examples needed no new word.'}
        </p>
      ) : (
        <ul className="learnt">
          {view.learnt.map((learnt) => (
            <li key={learnt.phrase}>
              <span className={learnt.weight > 0 ? 'in-moss' : 'in-brick'}>{learnt.weight > 0 ? 'for' : 'against'}</span>{' '}
              <b>{learntIn(learnt)}</b>
              {onChange ? (
                <button className="linkish" onClick={() => onChange({ ...draft, leftOut: [...draft.leftOut, learnt.phrase] })}>
                  leave out
                </button>
              ) : null}
            </li>
          ))}
        </ul>
      )}
      {draft.leftOut.length > 0 ? <p className="quiet small">left out: {draft.leftOut.join(', ')}</p> : null}
    </section>
  );
}

/** The options of a choice, each with what else it is called. */
function Options({
  view: { options, draft },
  onChange,
}: {
  readonly view: QuestionView;
  readonly onChange: ((next: QuestionDraft) => void) | undefined;
}) {
  return (
    <>
      <h2>
        One of <span className="quiet small">{options.length}</span>
      </h2>
      {options.map((option) => {
        const words = draft.optionWords[option] ?? [];
        return (
          <details key={option} className="options-of">
            <summary>
              {option}{' '}
              <span className="quiet small">
                {words.length === 0 ? 'as a dictionary calls it' : words.length === 1 ? '1 other word' : `${words.length} other words`}
              </span>
            </summary>
            <Phrases
              of={option}
              add="also called"
              list={words}
              onChange={onChange && ((next) => onChange({ ...draft, optionWords: { ...draft.optionWords, [option]: next } }))}
            />
          </details>
        );
      })}
    </>
  );
}
