'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import type { FieldRecord } from '../../../api';
import type { OwnField } from '../../../core/fields';
import { keyFor } from '../../../core/fields';
import { EMPTY_DRAFT, fieldFrom, type Draft } from '../state/fields';
import { Readings, TypeSelect } from './FieldParts';

interface Props {
  readonly record: FieldRecord;
  /** a label to begin with */
  readonly label: string;
  readonly groups: readonly string[];
  readonly busy: boolean;
  readonly onMake: (field: OwnField) => void;
}

/** A field being made: what it is called, what it holds, and what it would read of what people write. */
export function NewField({ record, label, groups, busy, onMake }: Props) {
  const [draft, setDraft] = useState<Draft>({ ...EMPTY_DRAFT, label });
  const put = (change: Partial<Draft>): void => {
    setDraft({ ...draft, ...change });
  };
  const made = fieldFrom(record, draft);
  const isEmpty = draft.label.trim() === '';
  return (
    <form
      className="new-field"
      aria-label="A new field"
      onSubmit={(event) => {
        event.preventDefault();
        if (!made.ok) return;
        onMake(made.field);
        setDraft(EMPTY_DRAFT);
      }}
    >
      <div className="parts">
        <TextField
          label="New field"
          placeholder="such as vans"
          value={draft.label}
          onChange={(event) => {
            put({ label: event.target.value });
          }}
        />
        <TextField
          label="in flows"
          placeholder={keyFor(draft.label)}
          value={draft.key}
          onChange={(event) => {
            put({ key: event.target.value });
          }}
        />
        <TypeSelect
          value={draft.type}
          onChange={(type) => {
            put({ type });
          }}
        />
        {draft.type === 'number' || draft.type === 'money' ? (
          <TextField
            label="unit"
            placeholder={draft.type === 'money' ? 'EUR' : 't, km, vans'}
            value={draft.unit}
            onChange={(event) => {
              put({ unit: event.target.value });
            }}
          />
        ) : null}
        {draft.type === 'choice' ? (
          <TextField
            label="options, with commas"
            value={draft.options}
            onChange={(event) => {
              put({ options: event.target.value });
            }}
          />
        ) : null}
        <TextField
          label="sample"
          value={draft.sample}
          onChange={(event) => {
            put({ sample: event.target.value });
          }}
        />
        <TextField
          label="group"
          value={draft.group}
          slotProps={{ htmlInput: { list: 'field-groups' } }}
          onChange={(event) => {
            put({ group: event.target.value });
          }}
        />
        <datalist id="field-groups">
          {groups.map((group) => (
            <option key={group} value={group} />
          ))}
        </datalist>
      </div>
      <div className="reads">
        <span className="grow">
          {isEmpty ? (
            <span className="quiet">A field is there at once for conditions, criteria, texts, forms, lists and questions.</span>
          ) : made.ok ? (
            <Readings field={made.field} />
          ) : (
            <span className="in-brass">{made.why}</span>
          )}
        </span>
        <Button type="submit" variant="contained" disabled={busy || isEmpty || !made.ok}>
          Add field
        </Button>
      </div>
    </form>
  );
}
