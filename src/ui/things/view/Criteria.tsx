/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import type { CardTrial, ThingTrial } from '../../../api';
import type { Criterion, Scorecard } from '../../../core/score';
import { placed } from '../../kit/placed';
import { nextId, problemsAt, wordsOf } from '../state/thing';
import { At } from './ThingSide';

interface Props {
  readonly card: Scorecard;
  readonly trial: CardTrial | null;
  readonly problems: ThingTrial['problems'];
  readonly mayChange: boolean;
  readonly onChange: (card: Scorecard) => void;
}

const figure = (text: string): number => Math.max(0, Math.round(Number(text.replace(/[^\d.]/g, '')) || 0));
const percent = (n: number, of: number): string => (of === 0 ? '–' : `${Math.round((n / of) * 100)} %`);

/** Criteria as sentences with their points, and how all records answer them; what rules out stands apart. */
export function Criteria({ card, trial, problems, mayChange, onChange }: Props) {
  const put = (i: number, criterion: Criterion | null): void => {
    onChange({ ...card, criteria: card.criteria.flatMap((each, k) => (k !== i ? [each] : criterion ? [criterion] : [])) });
  };
  const add = (when: string): void => {
    onChange({
      ...card,
      criteria: [...card.criteria, { id: nextId(card), text: wordsOf(when), levels: [{ when, points: 10 }], whenUnknown: 0 }],
    });
  };
  const rules = (entries: Scorecard['disqualifiers']): void => {
    onChange({ ...card, disqualifiers: entries });
  };
  return (
    <>
      <table className="plain criteria">
        <thead>
          <tr>
            <th>a {card.target} scores when</th>
            <th className="right">points</th>
            <th>over all records</th>
            <th className="right">holds</th>
            <th className="right">unknown</th>
          </tr>
        </thead>
        <tbody>
          {card.criteria.map((criterion, i) => (
            <Row
              key={criterion.id}
              criterion={criterion}
              counted={trial?.criteria.find((each) => each.id === criterion.id)}
              of={trial?.of ?? 0}
              problems={problemsAt(problems, `criteria.${i}`)}
              mayChange={mayChange}
              last={card.criteria.length === 1}
              onChange={(next) => {
                put(i, next);
              }}
            />
          ))}
        </tbody>
      </table>
      {mayChange ? <Adder label="type a criterion" sample={`${card.target}.employees >= 10`} onAdd={add} /> : null}
      <p className="quiet small" css={placed({ margin: '18px 0 4px' })}>
        and is out when
      </p>
      <table className="plain criteria">
        <tbody>
          {card.disqualifiers.map((entry, i) => (
            <tr key={i}>
              <td>
                <input
                  className="bare"
                  aria-label={`Name of what rules out, ${i + 1}`}
                  value={entry.text}
                  disabled={!mayChange}
                  onChange={(event) => {
                    rules(card.disqualifiers.map((each, k) => (k === i ? { ...each, text: event.target.value } : each)));
                  }}
                />
                <input
                  className="bare mono"
                  aria-label={`Condition that rules out, ${i + 1}`}
                  value={entry.when}
                  disabled={!mayChange}
                  onChange={(event) => {
                    rules(card.disqualifiers.map((each, k) => (k === i ? { ...each, when: event.target.value } : each)));
                  }}
                />
                <At problems={problemsAt(problems, `disqualifiers.${i}`)} />
              </td>
              <td className="right in-brick">■ out</td>
              <td className="right">{trial ? `${(trial.out[i] ?? 0).toLocaleString('en-GB')} ruled out` : ''}</td>
              <td className="right">
                {mayChange ? (
                  <button
                    className="linkish small"
                    onClick={() => {
                      rules(card.disqualifiers.filter((_, k) => k !== i));
                    }}
                  >
                    take out
                  </button>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {mayChange ? (
        <Adder
          label="type what rules out"
          sample={`${card.target}.country = "XX"`}
          onAdd={(when) => {
            rules([...card.disqualifiers, { text: wordsOf(when), when }]);
          }}
        />
      ) : null}
    </>
  );
}

interface RowProps {
  readonly criterion: Criterion;
  readonly counted: CardTrial['criteria'][number] | undefined;
  readonly of: number;
  readonly problems: ThingTrial['problems'];
  readonly mayChange: boolean;
  readonly last: boolean;
  readonly onChange: (criterion: Criterion | null) => void;
}

function Row({ criterion, counted, of, problems, mayChange, last, onChange }: RowProps) {
  const level = (k: number, change: Partial<Criterion['levels'][number]>): void => {
    onChange({ ...criterion, levels: criterion.levels.map((each, i) => (i === k ? { ...each, ...change } : each)) });
  };
  const same = counted && of > 20 ? Math.max(counted.holds, counted.fails, counted.unknown) / of : 0;
  return (
    <tr>
      <td>
        <input
          className="bare"
          aria-label={`Name of the criterion ${criterion.text}`}
          value={criterion.text}
          disabled={!mayChange}
          onChange={(event) => {
            onChange({ ...criterion, text: event.target.value });
          }}
        />
        {criterion.levels.map((each, k) => (
          <input
            key={k}
            className="bare mono"
            title={each.when}
            aria-label={`Condition ${k + 1} of ${criterion.text}`}
            value={each.when}
            disabled={!mayChange}
            onChange={(event) => {
              level(k, { when: event.target.value });
            }}
          />
        ))}
        <span className="quiet small">
          not known gives{' '}
          <input
            className="bare figure"
            aria-label={`Points of ${criterion.text} when not known`}
            inputMode="numeric"
            value={criterion.whenUnknown}
            disabled={!mayChange}
            onChange={(event) => {
              onChange({ ...criterion, whenUnknown: figure(event.target.value) });
            }}
          />
          {mayChange ? (
            <>
              {' · '}
              <button
                className="linkish"
                onClick={() => {
                  const lowest = criterion.levels.at(-1);
                  onChange({
                    ...criterion,
                    levels: [...criterion.levels, { when: lowest?.when ?? '', points: Math.floor((lowest?.points ?? 2) / 2) }],
                  });
                }}
              >
                add a step
              </button>
              {' · '}
              <button
                className="linkish"
                aria-label={criterion.levels.length > 1 ? `Drop the last step of ${criterion.text}` : `Take out ${criterion.text}`}
                disabled={last && criterion.levels.length === 1}
                onClick={() => {
                  onChange(criterion.levels.length > 1 ? { ...criterion, levels: criterion.levels.slice(0, -1) } : null);
                }}
              >
                {criterion.levels.length > 1 ? 'drop the last step' : 'take out'}
              </button>
            </>
          ) : null}
        </span>
        <At problems={problems} />
        {same >= 0.97 ? (
          <span className="in-brass small" css={placed({ display: 'block' })}>
            {Math.round(same * 100)} of 100 get the same answer: this separates nobody
          </span>
        ) : null}
      </td>
      <td className="right">
        <span className="strong">&nbsp;</span>
        {criterion.levels.map((each, k) => (
          <input
            key={k}
            className="bare figure"
            css={placed({ display: 'block', marginLeft: 'auto' })}
            aria-label={`Points ${k + 1} of ${criterion.text}`}
            inputMode="numeric"
            value={each.points}
            disabled={!mayChange}
            onChange={(event) => {
              level(k, { points: figure(event.target.value) });
            }}
          />
        ))}
      </td>
      <td>
        {counted ? (
          <span
            className="share-bar"
            role="img"
            aria-label={`${counted.holds} hold, ${counted.part} in part, ${counted.unknown} unknown, ${counted.fails} not`}
            title={`${counted.holds} hold, ${counted.part} in part, ${counted.unknown} unknown, ${counted.fails} not`}
          >
            {(['holds', 'part', 'unknown'] as const).map((state) => (
              <i key={state} className={state} css={placed({ width: `${(counted[state] / Math.max(1, of)) * 100}%` })} />
            ))}
          </span>
        ) : null}
      </td>
      <td className="right">{counted ? percent(counted.holds + counted.part, of) : ''}</td>
      <td className={`right ${counted && counted.unknown / Math.max(1, of) > 0.25 ? 'in-brass' : 'quiet'}`}>
        {counted ? percent(counted.unknown, of) : ''}
      </td>
    </tr>
  );
}

function Adder({ label, sample, onAdd }: { readonly label: string; readonly sample: string; readonly onAdd: (when: string) => void }) {
  const [typed, setTyped] = useState('');
  return (
    <form
      css={placed({ display: 'flex', gap: 8, marginTop: 8, maxWidth: 560 })}
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim() === '') return;
        onAdd(typed.trim());
        setTyped('');
      }}
    >
      <TextField
        fullWidth
        value={typed}
        placeholder={`+ ${label}: ${sample}`}
        onChange={(event) => {
          setTyped(event.target.value);
        }}
        slotProps={{ htmlInput: { 'aria-label': label, className: 'mono' } }}
      />
      <Button type="submit" disabled={typed.trim() === ''}>
        Add
      </Button>
    </form>
  );
}
