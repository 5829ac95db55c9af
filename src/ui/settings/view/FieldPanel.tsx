/** @jsxImportSource @emotion/react */
'use client';
import { Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { FieldEdit, FieldTrial, FieldView } from '../../../api';
import type { OwnField } from '../../../core/fields';
import { call, sayProblem } from '../../client';
import Link from '../../kit/Link';
import { Problem } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { typeText } from '../../../core/fields';
import { draftOf, fieldFrom, trialText, type Draft } from '../state/fields';
import { Readings, TypeSelect } from './FieldParts';

/** Kinds of record whose lists show fields as columns. */
const LISTED: Readonly<Partial<Record<OwnField['record'], string>>> = {
  company: 'a column of the list of companies',
  application: 'a column of who has applied',
};

interface Props {
  readonly entry: FieldView;
  readonly of: number;
  readonly others: readonly OwnField[];
  readonly busy: boolean;
  readonly mayChange: boolean;
  readonly onEdit: (edit: FieldEdit, says: string) => void;
}

/** One field: what uses it, how it is called and read, and what a change would do to every value before it is done. */
export function FieldPanel({ entry, of, others, busy, mayChange, onEdit }: Props) {
  const { field, uses, filled } = entry;
  const [draft, setDraft] = useState(draftOf(field));
  const [figures, setFigures] = useState<'convert' | 'keep'>('convert');
  const [into, setInto] = useState('');
  const [tried, setTried] = useState<{ readonly edit: FieldEdit; readonly trial: FieldTrial } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { isStandard: _isStandard, isComputed: _isComputed, ...before } = field;
  const made = fieldFrom(field.record, draft, before);
  const changed = JSON.stringify(draft) !== JSON.stringify(draftOf(field));
  const touchesValues =
    made.ok &&
    (made.field.type !== field.type || made.field.unit !== field.unit || (made.field.trust ?? []).join() !== (field.trust ?? []).join());
  const put = (change: Partial<Draft>): void => {
    setDraft({ ...draft, ...change });
    setTried(null);
  };
  const look = (edit: FieldEdit): void => {
    call('tryField', { body: edit }).then(
      (trial) => {
        setProblem(null);
        setTried({ edit, trial });
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  const keep = (): void => {
    if (!made.ok) return;
    const edit: FieldEdit = { does: 'change', field: made.field, figures };
    if (touchesValues) look(edit);
    else onEdit(edit, `${made.field.label} is changed.`);
  };
  const text = (key: keyof Draft, label: string, placeholder = '') => (
    <TextField
      label={label}
      placeholder={placeholder}
      disabled={!mayChange}
      value={draft[key]}
      onChange={(event) => {
        put({ [key]: event.target.value });
      }}
    />
  );
  return (
    <aside className="col field-panel" css={placed({ width: 296, flex: 'none' })} tabIndex={0} aria-label={`Field ${field.label}`}>
      <div className="bar ruled">
        <h2 className="grow">{field.label}</h2>
        <span className="quiet small">
          {filled.toLocaleString('en-GB')} of {of.toLocaleString('en-GB')}
        </span>
      </div>
      <div className="inner">
        <p className="quiet small">
          <span className="mono">{field.key}</span> · {typeText(field)}
          {field.isStandard ? ' · every business has it: type and unit stay' : ''}
        </p>
        <Problem
          says={problem}
          onClose={() => {
            setProblem(null);
          }}
        />
        <h3>Used by</h3>
        {uses.length === 0 ? <p className="quiet small">Nothing speaks of it yet.</p> : null}
        <ul className="uses">
          {uses.map((use) => (
            <li key={`${use.kind} ${use.name}`}>
              <span className="quiet">{use.kind}</span> {use.href === null ? use.name : <Link href={use.href}>{use.name}</Link>}
            </li>
          ))}
        </ul>
        {field.isComputed ? null : (
          <>
            <h3>How it is called and read</h3>
            <div className="stack">
              {text('label', 'label')}
              {text('words', 'other words for it, with commas', 'as lists and colleagues call it')}
              {field.isStandard ? null : (
                <>
                  {text('group', 'group')}
                  {text('sample', 'sample')}
                  <div className="pair">
                    <TypeSelect
                      value={draft.type}
                      disabled={!mayChange}
                      onChange={(type) => {
                        put({ type });
                      }}
                    />
                    {draft.type === 'number' || draft.type === 'money' ? text('unit', 'unit') : null}
                  </div>
                  {draft.type === 'choice' ? text('options', 'options, with commas') : null}
                  <FormControlLabel
                    label={LISTED[field.record] ?? 'a column of their list'}
                    disabled={!mayChange || LISTED[field.record] === undefined}
                    control={
                      <Checkbox
                        checked={draft.isListed}
                        onChange={(event) => {
                          put({ isListed: event.target.checked });
                        }}
                      />
                    }
                  />
                  <FormControlLabel
                    label="protected: nobody is judged by it"
                    disabled={!mayChange}
                    control={
                      <Checkbox
                        checked={draft.isProtected}
                        onChange={(event) => {
                          put({ isProtected: event.target.checked });
                        }}
                      />
                    }
                  />
                  <FormControlLabel
                    label="directories are asked by it"
                    disabled={!mayChange || field.record !== 'company'}
                    control={
                      <Checkbox
                        checked={draft.inDirectory}
                        onChange={(event) => {
                          put({ inDirectory: event.target.checked });
                        }}
                      />
                    }
                  />
                </>
              )}
              {text('staleMonths', 'old after so many months', 'never')}
              {text('trust', 'believed first, with commas', 'found before told')}
              <FormControlLabel
                label="only owner and builders set it by hand"
                disabled={!mayChange}
                control={
                  <Checkbox
                    checked={draft.byBuilders}
                    onChange={(event) => {
                      put({ byBuilders: event.target.checked });
                    }}
                  />
                }
              />
              {draft.type === 'number' || draft.type === 'money' ? (
                <div className="pair">
                  {text('least', 'cannot be below')}
                  {text('most', 'cannot be above')}
                </div>
              ) : null}
              {touchesValues && made.field.unit !== field.unit ? (
                <TextField
                  select
                  label="figures that are there"
                  value={figures}
                  onChange={(event) => {
                    setFigures(event.target.value as 'convert' | 'keep');
                    setTried(null);
                  }}
                >
                  <MenuItem value="convert">are told in {made.field.unit ?? 'no unit'}</MenuItem>
                  <MenuItem value="keep">stay: the unit was wrong</MenuItem>
                </TextField>
              ) : null}
              <p className="small">{made.ok ? <Readings field={made.field} /> : <span className="in-brass">{made.why}</span>}</p>
              {mayChange ? (
                <Button variant="contained" disabled={!changed || !made.ok || busy} onClick={keep}>
                  {touchesValues ? 'See what becomes of the values' : 'Keep'}
                </Button>
              ) : null}
            </div>
          </>
        )}
        {mayChange && !field.isStandard ? (
          <>
            <h3>Not needed any more?</h3>
            <div className="stack">
              <TextField
                select
                label="is the same as"
                slotProps={{ select: { displayEmpty: true } }}
                value={into}
                onChange={(event) => {
                  setInto(event.target.value);
                  setTried(null);
                }}
              >
                <MenuItem value="">none of the others</MenuItem>
                {others.map((other) => (
                  <MenuItem key={other.key} value={other.key}>
                    {other.label}
                  </MenuItem>
                ))}
              </TextField>
              <div className="pair">
                <Button
                  disabled={into === '' || busy}
                  onClick={() => {
                    look({ does: 'join', record: field.record, key: field.key, into });
                  }}
                >
                  See what it does
                </Button>
                <Button
                  disabled={busy}
                  onClick={() => {
                    const isRetired = field.isRetired !== true;
                    onEdit(
                      { does: 'retire', record: field.record, key: field.key, isRetired },
                      isRetired ? `${field.label} is retired: its values stay, and it is offered nowhere.` : `${field.label} is back.`,
                    );
                  }}
                >
                  {field.isRetired ? 'Take it back' : 'Retire'}
                </Button>
              </div>
            </div>
          </>
        ) : null}
        {tried ? (
          <section className="tried" aria-label="What would happen">
            <h3>{tried.edit.does === 'join' ? 'If you join them' : 'If you keep it'}</h3>
            <p>{trialText(tried.trial)}</p>
            <table className="plain">
              <tbody>
                {tried.trial.samples.map((sample) => (
                  <tr key={sample.from}>
                    <td>{sample.from}</td>
                    <td>{sample.to ?? <span className="in-brass">kept aside</span>}</td>
                    <td className="right quiet">{sample.n}×</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {tried.trial.uses.length > 0 && tried.edit.does === 'change' ? (
              <p className="small quiet">What speaks of it keeps its text: conditions in the old unit are pointed at by the checker.</p>
            ) : null}
            <Button
              variant="contained"
              disabled={busy}
              onClick={() => {
                onEdit(tried.edit, tried.edit.does === 'join' ? `${field.label} is joined.` : `${field.label} is changed.`);
                setTried(null);
              }}
            >
              {tried.edit.does === 'join' ? 'Join them' : 'Keep it'}
            </Button>
          </section>
        ) : null}
      </div>
    </aside>
  );
}
