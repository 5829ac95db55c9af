'use client';
import { MenuItem, Popover, TextField } from '@mui/material';
import { useState } from 'react';
import type { Library } from '../../../core/flow/check';
import { applyEdits } from '../../../core/flow/edit';
import { partText } from '../../../core/flow/say';
import { completeAt } from '../../../core/flow/complete';
import { choicesFor, SLOT_HELP } from '../state/choices';
import { readScript } from '../state/script';
import type { EditablePart } from './Sentence';

interface Props {
  readonly part: EditablePart;
  readonly anchor: HTMLElement;
  readonly text: string;
  readonly library: Library;
  readonly onChange: (text: string) => void;
  readonly onClose: () => void;
}

/** Changes one part of a line in place: names are chosen, conditions and figures typed and checked as they are typed. */
export function PartEditor({ part, anchor, text, library, onChange, onClose }: Props) {
  const [typed, setTyped] = useState(part.edit.source);
  const choices = choicesFor(part.edit.slot, library);
  const result = (value: string): string =>
    applyEdits(text, [{ from: part.edit.from, to: part.edit.to, insert: partText(part.edit, value) }]);
  const take = (value: string): void => {
    onChange(result(value));
    onClose();
  };
  const wrong = choices ? undefined : problemAt(result(typed), part.edit.from, typed.length + 2, library);
  const options =
    part.edit.slot === 'condition' ? (completeAt(`keep when ${typed}`, `keep when ${typed}`.length, library)?.options ?? []) : [];
  return (
    <Popover open anchorEl={anchor} onClose={onClose} anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}>
      {choices ? (
        <div role="listbox" aria-label="Choose" style={{ minWidth: 180, padding: '4px 0' }}>
          {choices.map((choice) => (
            <MenuItem
              key={choice}
              role="option"
              aria-selected={choice === part.edit.source}
              selected={choice === part.edit.source}
              autoFocus={choice === part.edit.source}
              onClick={() => {
                take(choice);
              }}
            >
              {choice}
            </MenuItem>
          ))}
          {choices.length === 0 ? (
            <p className="quiet" style={{ padding: '6px 12px' }}>
              There is none yet.
            </p>
          ) : null}
        </div>
      ) : (
        <form
          style={{ padding: 12, width: part.edit.slot === 'condition' ? 420 : 240 }}
          onSubmit={(event) => {
            event.preventDefault();
            if (wrong === undefined) take(typed);
          }}
        >
          <TextField
            autoFocus
            fullWidth
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value);
            }}
            onFocus={(event) => {
              event.target.select();
            }}
            slotProps={{ htmlInput: { 'aria-label': `New ${part.edit.slot}`, className: part.edit.slot === 'condition' ? 'code' : '' } }}
          />
          <p className={`small ${wrong ? 'in-brick' : 'quiet'}`} style={{ marginTop: 6 }} role={wrong ? 'alert' : undefined}>
            {wrong ?? `${SLOT_HELP[part.edit.slot]} · Enter takes it over`}
          </p>
          {options.length > 0 ? (
            <div className="options">
              {options.slice(0, 6).map((option) => (
                <button
                  key={option.label}
                  type="button"
                  onClick={() => {
                    setTyped(typed.replace(/[a-z_][a-z0-9_.]*$/i, '') + option.insert);
                  }}
                >
                  <span className="code">{option.label}</span> <span className="quiet small">{option.detail}</span>
                </button>
              ))}
            </div>
          ) : null}
        </form>
      )}
    </Popover>
  );
}

/** The first error inside the changed part, in words. */
function problemAt(text: string, from: number, length: number, library: Library): string | undefined {
  const { findings } = readScript(text, library);
  return findings.find((finding) => finding.severity === 'error' && finding.from >= from - 2 && finding.from <= from + length)?.message;
}
