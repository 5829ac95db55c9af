/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { FieldEdit, FieldView } from '../../../api';
import { typeText, type OwnField } from '../../../core/fields';
import Link from '../../kit/Link';
import { Problem } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { trialText } from '../state/fields';
import { FieldReading } from './FieldReading';
import { useFieldChange, type FieldChange } from './useFieldChange';

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
  const { field, filled } = entry;
  const change = useFieldChange(entry, onEdit);
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
          says={change.problem}
          onClose={() => {
            change.setProblem(null);
          }}
        />
        <UsedBy uses={entry.uses} />
        {field.isComputed ? null : <FieldReading change={change} busy={busy} mayChange={mayChange} />}
        {mayChange && !field.isStandard ? <NotNeeded change={change} others={others} busy={busy} onEdit={onEdit} /> : null}
        <Tried change={change} busy={busy} onEdit={onEdit} />
      </div>
    </aside>
  );
}

function UsedBy({ uses }: Pick<FieldView, 'uses'>) {
  return (
    <>
      <h3>Used by</h3>
      {uses.length === 0 ? <p className="quiet small">Nothing speaks of it yet.</p> : null}
      <ul className="uses">
        {uses.map((use) => (
          <li key={`${use.kind} ${use.name}`}>
            <span className="quiet">{use.kind}</span> {use.href === null ? use.name : <Link href={use.href}>{use.name}</Link>}
          </li>
        ))}
      </ul>
    </>
  );
}

interface PartProps extends Pick<Props, 'busy' | 'onEdit'> {
  readonly change: FieldChange;
}

/** The way out of use: joined with another that means the same, or retired. */
function NotNeeded({ change: { field, look, setTried }, others, busy, onEdit }: PartProps & Pick<Props, 'others'>) {
  const [into, setInto] = useState('');
  return (
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
  );
}

/** What a change would do to every value, and doing it. */
function Tried({ change: { field, tried, setTried }, busy, onEdit }: PartProps) {
  if (tried === null) return null;
  return (
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
  );
}
