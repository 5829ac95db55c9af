'use client';
import { useState } from 'react';
import { Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import {
  FILE_KIND_NAMES,
  FILE_KINDS,
  QUESTION_KINDS,
  targetLabel,
  targetsOf,
  type FormProblem,
  type FormQuestion,
  type QuestionKind,
} from '../../../core/intake';
import { useFields } from '../../client/fields';
import { TextArea } from '../../kit/TextArea';
import { linesIn } from '../../kit/lines';

interface Props {
  readonly question: FormQuestion;
  readonly open: boolean;
  readonly problems: readonly FormProblem[];
  readonly onToggle: () => void;
  readonly onChange: (question: FormQuestion) => void;
  readonly onMove: (by: -1 | 1) => void;
  readonly onAdd: () => void;
  readonly onRemove: () => void;
}

/** A question as a row that reads aloud; opened, every part of it can be changed. */
export function QuestionEditor({ question, open, problems, onToggle, onChange, onMove, onAdd, onRemove }: Props) {
  const fields = useFields();
  const kind = `${question.kind}${question.unit === undefined ? '' : ` in ${question.unit}`}${question.options ? `: ${question.options.join(', ')}` : ''}`;
  return (
    <div className={`question ${open ? 'open' : ''}`}>
      <div className="question-row">
        <button type="button" className="name" aria-expanded={open} onClick={onToggle}>
          <span className="strong">{question.label}</span>
          <span className="quiet cut">
            {kind}
            {question.required ? ' · needed' : ''}
            {question.when === '' ? '' : ` · when ${question.when}`}
          </span>
        </button>
        <span className="quiet small">
          {question.fills === null || question.fills === 'leave out' ? `entry.${question.id}` : `→ ${targetLabel(question.fills, fields)}`}
        </span>
        <button
          type="button"
          aria-label={`Move “${question.label}” up`}
          title="up"
          onClick={() => {
            onMove(-1);
          }}
        >
          ↑
        </button>
        <button
          type="button"
          aria-label={`Move “${question.label}” down`}
          title="down"
          onClick={() => {
            onMove(1);
          }}
        >
          ↓
        </button>
        <button type="button" aria-label={`Add a question below “${question.label}”`} title="add below" onClick={onAdd}>
          +
        </button>
        <button type="button" aria-label={`Take out “${question.label}”`} title="take out" onClick={onRemove}>
          ✕
        </button>
      </div>
      {problems.map((problem) => (
        <p key={problem.says} className="small in-brick problem" role="alert">
          ■ {problem.says}
        </p>
      ))}
      {open ? <Parts question={question} onChange={onChange} onToggle={onToggle} /> : null}
    </div>
  );
}

function Parts({ question, onChange, onToggle }: Pick<Props, 'question' | 'onChange' | 'onToggle'>) {
  const fields = useFields();
  const put = (more: Partial<FormQuestion>): void => {
    onChange({ ...question, ...more });
  };
  return (
    <div className="parts">
      <TextField
        className="wide"
        label="Question"
        value={question.label}
        onChange={(event) => {
          put({ label: event.target.value });
        }}
      />
      <TextField
        className="wide"
        label="Help below it"
        value={question.help}
        onChange={(event) => {
          put({ help: event.target.value });
        }}
      />
      <TextField
        select
        label="Kind of answer"
        value={question.kind}
        onChange={(event) => {
          onChange(asKind(question, event.target.value as QuestionKind));
        }}
      >
        {QUESTION_KINDS.map((kind) => (
          <MenuItem key={kind} value={kind}>
            {kind}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="Fills"
        value={question.fills ?? ''}
        onChange={(event) => {
          put({ fills: event.target.value === '' ? null : event.target.value });
        }}
      >
        <MenuItem value="">no field: kept with the entry</MenuItem>
        {targetsOf(fields)
          .filter((target) => target !== 'leave out')
          .map((target) => (
            <MenuItem key={target} value={target}>
              {targetLabel(target, fields)}
            </MenuItem>
          ))}
      </TextField>
      <TextField
        label="Name in flows"
        value={question.id}
        helperText={`entry.${question.id}`}
        onChange={(event) => {
          put({
            id: event.target.value
              .toLowerCase()
              .replace(/[^a-z0-9_]/g, '_')
              .slice(0, 40),
          });
        }}
      />
      <OfKind question={question} onChange={onChange} />
      <TextField
        className="wide"
        label="Asked only when"
        value={question.when}
        placeholder="always"
        helperText='a condition over the questions above, as in flows: wants_visit = "yes"'
        onChange={(event) => {
          put({ when: event.target.value });
        }}
      />
      <FormControlLabel
        label="an answer is needed"
        control={
          <Checkbox
            checked={question.required}
            onChange={(event) => {
              put({ required: event.target.checked });
            }}
          />
        }
      />
      <div className="done">
        <Button onClick={onToggle}>Done</Button>
      </div>
    </div>
  );
}

/** The same question with another kind of answer; what only the old kind has goes. */
function asKind(question: FormQuestion, kind: QuestionKind): FormQuestion {
  const { unit: _unit, options: _options, accepts: _accepts, ...rest } = question;
  return {
    ...rest,
    kind,
    ...(kind === 'choice' && { options: question.options ?? ['yes', 'no'] }),
    ...(kind === 'file' && { accepts: question.accepts ?? ['pdf'] }),
    ...(kind === 'number' && question.unit !== undefined && { unit: question.unit }),
  };
}

/** What only a number, a choice or a file has. */
function OfKind({ question, onChange }: Pick<Props, 'question' | 'onChange'>) {
  const put = (more: Partial<FormQuestion>): void => {
    onChange({ ...question, ...more });
  };
  return (
    <>
      {question.kind === 'number' ? (
        <TextField
          label="Unit"
          value={question.unit ?? ''}
          placeholder="ha"
          onChange={(event) => {
            const { unit: _unit, ...rest } = question;
            onChange(event.target.value === '' ? rest : { ...rest, unit: event.target.value });
          }}
        />
      ) : null}
      {question.kind === 'choice' ? (
        <div className="wide">
          <Choices
            options={question.options ?? []}
            onChange={(options) => {
              put({ options: [...options] });
            }}
          />
        </div>
      ) : null}
      {question.kind === 'file' ? (
        <div className="wide" role="group" aria-label="Files it takes">
          {FILE_KINDS.map((kind) => (
            <FormControlLabel
              key={kind}
              label={FILE_KIND_NAMES[kind]}
              control={
                <Checkbox
                  checked={question.accepts?.includes(kind) ?? false}
                  onChange={(event) => {
                    const without = (question.accepts ?? []).filter((entry) => entry !== kind);
                    put({ accepts: event.target.checked ? [...without, kind] : without });
                  }}
                />
              }
            />
          ))}
        </div>
      ) : null}
    </>
  );
}

/** The answers of a choice, one a line; taken over when the field is left. */
function Choices({ options, onChange }: { readonly options: readonly string[]; readonly onChange: (options: readonly string[]) => void }) {
  const [typed, setTyped] = useState(options.join('\n'));
  return (
    <TextArea
      label="Answers to choose from, one a line"
      shown
      value={typed}
      onChange={setTyped}
      onBlur={() => {
        onChange(linesIn(typed));
      }}
    />
  );
}
