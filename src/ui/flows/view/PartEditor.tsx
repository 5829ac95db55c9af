/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, Popover, TextField } from '@mui/material';
import { useState } from 'react';
import type { Library } from '../../../core/flow/check';
import { applyEdits } from '../../../core/flow/edit';
import { partText } from '../../../core/flow/say';
import { completeAt } from '../../../core/flow/complete';
import { choicesFor, SLOT_HELP } from '../state/choices';
import { readScript, type EditablePart } from '../state/script';
import { placed } from '../../kit/placed';

interface Props {
  /** the part as it stood when it was opened, and as it stands now: others may have changed it, or its line, meanwhile */
  readonly was: EditablePart;
  readonly now: EditablePart | undefined;
  /** where it opens, in the window */
  readonly at: { readonly top: number; readonly left: number };
  readonly text: string;
  readonly library: Library;
  readonly onChange: (text: string) => void;
  readonly onClose: () => void;
}

/** Changes one part of a line in place: names are chosen, conditions and figures typed and checked as they are typed. */
export function PartEditor({ was, now, at, text, library, onChange, onClose }: Props) {
  const [typed, setTyped] = useState(was.edit.source);
  const part = now ?? was;
  const choices = choicesFor(part.edit.slot, library);
  const result = (value: string): string =>
    now ? applyEdits(text, [{ from: now.edit.from, to: now.edit.to, insert: partText(now.edit, value) }]) : text;
  const take = (value: string): void => {
    onChange(result(value));
    onClose();
  };
  const wrong = !now
    ? 'somebody took this out of its line meanwhile: what you typed can be copied from here'
    : choices
      ? undefined
      : problemAt(result(typed), part.edit.from, typed.length + 2, library);
  const isFeel = part.edit.slot === 'condition' || part.edit.slot === 'formula';
  const before = `${part.edit.slot === 'formula' ? 'note' : 'keep when'} ${typed}`;
  const options = isFeel ? (completeAt(before, before.length, library)?.options ?? []) : [];
  return (
    <Popover open anchorReference="anchorPosition" anchorPosition={at} onClose={onClose}>
      {now && now.edit.source !== was.edit.source ? (
        <p className="small in-brass" css={placed({ padding: '8px 12px 0', maxWidth: 420 })} role="status">
          ◆ changed meanwhile to <span className="code">{now.edit.source}</span>: what you take here stands in its place
        </p>
      ) : null}
      {choices && now ? (
        <div role="listbox" aria-label="Choose" css={placed({ minWidth: 180, padding: '4px 0' })}>
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
            <p className="quiet" css={placed({ padding: '6px 12px' })}>
              There is none yet.
            </p>
          ) : null}
        </div>
      ) : (
        <form
          css={placed({ padding: 12, width: isFeel ? 420 : 240 })}
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
            slotProps={{ htmlInput: { 'aria-label': `New ${part.edit.slot}`, className: isFeel ? 'code' : '' } }}
          />
          <p className={`small ${wrong ? 'in-brick' : 'quiet'}`} css={placed({ marginTop: 6 })} role={wrong ? 'alert' : undefined}>
            {wrong ?? `${SLOT_HELP[part.edit.slot]} · Enter takes it over`}
          </p>
          {options.length > 0 ? (
            <div className="options">
              {options.slice(0, 6).map((option) => (
                <button
                  key={option.label}
                  type="button"
                  onClick={() => {
                    setTyped(typed.replace(/[a-z_][a-z0-9_.]{0,200}$/i, '') + option.insert);
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
