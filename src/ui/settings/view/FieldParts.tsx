'use client';
import { MenuItem, TextField } from '@mui/material';
import { FIELD_TYPES, isFigure, type FieldType, type OwnField } from '../../../core/fields';
import { readings } from '../state/fields';

interface TypeProps {
  readonly value: FieldType;
  readonly disabled?: boolean;
  readonly onChange: (type: FieldType) => void;
}

export function TypeSelect({ value, disabled = false, onChange }: TypeProps) {
  return (
    <TextField
      select
      label="type"
      disabled={disabled}
      value={value}
      onChange={(event) => {
        onChange(event.target.value as FieldType);
      }}
    >
      {FIELD_TYPES.map((type) => (
        <MenuItem key={type} value={type}>
          {type}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** What a field makes of what people write. */
export function Readings({ field }: { readonly field: OwnField }) {
  const said = readings(field);
  if (said.length === 0) return <span className="quiet">{isFigure(field) ? 'figures are taken' : 'any text is taken'}</span>;
  return (
    <>
      reads{' '}
      {said.map(({ typed, reads }, i) => (
        <span key={typed}>
          {i === 0 ? '' : ' · '}“{typed}”{' '}
          {reads === null ? <span className="in-brass">is refused</span> : <span className="in-moss">is {reads}</span>}
        </span>
      ))}
    </>
  );
}
