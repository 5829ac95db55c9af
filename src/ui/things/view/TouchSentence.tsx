/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, TextField } from '@mui/material';
import type { ThingTrial } from '../../../api';
import type { Channel, FollowUpPlan } from '../../../core/writer';
import { placed } from '../../kit/placed';
import { CHANNEL_GLYPHS, CHANNEL_WORDS } from '../state/plan';
import { problemsAt } from '../state/thing';
import { At } from './ThingSide';

type Touch = FollowUpPlan['touches'][number];
interface Props {
  readonly at: number;
  readonly touch: Touch;
  readonly texts: readonly { readonly name: string; readonly channel: Channel }[];
  readonly problems: ThingTrial['problems'];
  readonly mayChange: boolean;
  readonly onChange: (change: Partial<Touch>) => void;
  /** undefined: it cannot go */
  readonly onDrop: (() => void) | undefined;
}

/** The chosen touch as a sentence whose parts are changed in place. */
export function TouchSentence({ at, touch, texts, problems, mayChange, onChange, onDrop }: Props) {
  const channel = texts.find(({ name }) => name === touch.template)?.channel ?? 'e-mail';
  return (
    <div className="touch-sentence">
      <span className="strong">
        <span aria-hidden>{CHANNEL_GLYPHS[channel]}</span> {CHANNEL_WORDS[channel]}
      </span>
      <TextPick
        label={`Text of touch ${at + 1}`}
        value={touch.template}
        texts={texts}
        off={!mayChange}
        onChange={(template) => {
          onChange({ template });
        }}
      />
      <span>on working day</span>
      <TextField
        type="number"
        value={touch.day}
        disabled={!mayChange || at === 0}
        onChange={(event) => {
          onChange({ day: Number(event.target.value) });
        }}
        slotProps={{ htmlInput: { 'aria-label': `Working day of touch ${at + 1}`, min: 0, max: 400 } }}
        css={placed({ width: 72 })}
      />
      {at === 0 ? (
        <span className="quiet small">begins when it is approved</span>
      ) : (
        <>
          <span>whom it does not reach:</span>
          <TextPick
            label={`Text instead of touch ${at + 1}`}
            value={touch.otherwise ?? ''}
            none="nothing"
            texts={texts.filter(({ name }) => name !== touch.template)}
            off={!mayChange}
            onChange={(otherwise) => {
              onChange({ otherwise });
            }}
          />
          <span>only when</span>
          <TextField
            value={touch.when ?? ''}
            disabled={!mayChange}
            placeholder='always (done.calls = 0, deal.stage = "Meeting")'
            onChange={(event) => {
              onChange({ when: event.target.value });
            }}
            slotProps={{ htmlInput: { 'aria-label': `Condition of touch ${at + 1}`, maxLength: 300, spellCheck: false } }}
            css={placed({ flex: 1, minWidth: 260 })}
          />
        </>
      )}
      {mayChange && onDrop ? (
        <button className="linkish small" aria-label={`Take out touch ${at + 1}`} onClick={onDrop}>
          take out
        </button>
      ) : null}
      <div css={placed({ flexBasis: '100%' })}>
        <At
          problems={(['day', 'template', 'otherwise', 'when'] as const).flatMap((part) => problemsAt(problems, `touches.${at}.${part}`))}
        />
      </div>
    </div>
  );
}

interface PickProps extends Pick<Props, 'texts'> {
  readonly label: string;
  readonly value: string;
  /** what stands for no text, where none may be taken */
  readonly none?: string;
  readonly off: boolean;
  readonly onChange: (name: string) => void;
}
function TextPick({ label, value, none, texts, off, onChange }: PickProps) {
  const known = texts.some(({ name }) => name === value) || (value === '' && none !== undefined);
  return (
    <TextField
      select
      value={value}
      disabled={off}
      onChange={(event) => {
        onChange(event.target.value);
      }}
      slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': label } }}
      css={placed({ minWidth: 130 })}
    >
      {none === undefined ? null : <MenuItem value="">{none}</MenuItem>}
      {known ? null : <MenuItem value={value}>{value}</MenuItem>}
      {texts.map(({ name, channel }) => (
        <MenuItem key={name} value={name}>
          {name}
          {channel === 'e-mail' ? '' : ` · ${channel}`}
        </MenuItem>
      ))}
    </TextField>
  );
}
