/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, TextField } from '@mui/material';
import { useRef, useState } from 'react';
import type { ThingView } from '../../../api';
import type { MessageTemplate } from '../../../core/writer';
import { useFields } from '../../client/fields';
import { LANGUAGES } from '../../kit/languages';
import { placed } from '../../kit/placed';
import { problemsAt, putIn } from '../state/thing';
import { useThing } from './useThing';
import { PersonalWindow } from './PersonalWindow';
import { Readers } from './Readers';
import { BenchFrame } from './BenchFrame';
import { At } from './ThingSide';

interface Props {
  readonly first: ThingView;
  readonly zone: string;
  readonly mayChange: boolean;
}
const USUAL = ['{first_name or "there"}', '{company.name}', '{personal line}', '{sender.name}'];

/** A text: its fixed words and slots, what its personal line may rest on, and how five different readers would get it. */
export function TextBench({ first, zone, mayChange }: Props) {
  const state = useThing<MessageTemplate>(first);
  const { body: text, trial, set } = state;
  const problems = trial?.problems ?? [];
  const area = useRef<HTMLTextAreaElement>(null);
  const put = (piece: string): void => {
    const at = area.current?.selectionStart ?? text.body.length;
    const next = putIn(text.body, at, piece);
    set({ ...text, body: next.text });
    requestAnimationFrame(() => {
      area.current?.focus();
      area.current?.setSelectionRange(next.at, next.at);
    });
  };
  return (
    <BenchFrame
      state={state}
      zone={zone}
      mayChange={mayChange}
      label="Text"
      sideLabel="Readers"
      sideWidth={470}
      side={
        <>
          {' '}
          <Readers trial={trial?.text ?? null} trying={state.trying} language={text.language} />
        </>
      }
    >
      <div className="head-row">
        <h2>Fixed words and slots</h2>
        <span className="grow" />
        <TextField
          select
          value={text.language}
          disabled={!mayChange}
          onChange={(event) => {
            set({ ...text, language: event.target.value });
          }}
          slotProps={{ htmlInput: { 'aria-label': 'Language' } }}
        >
          {LANGUAGES.map(([code, name]) => (
            <MenuItem key={code} value={code}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          type="number"
          label="at most, characters"
          value={text.maxLength}
          disabled={!mayChange}
          onChange={(event) => {
            set({ ...text, maxLength: Math.max(1, Math.round(Number(event.target.value))) });
          }}
          css={placed({ width: 130 })}
        />
      </div>
      <TextField
        fullWidth
        label="subject"
        value={text.subject}
        disabled={!mayChange}
        onChange={(event) => {
          set({ ...text, subject: event.target.value });
        }}
      />
      <At problems={problemsAt(problems, 'subject')} />
      <TextField
        fullWidth
        multiline
        label="words"
        minRows={11}
        maxRows={22}
        inputRef={area}
        value={text.body}
        disabled={!mayChange}
        onChange={(event) => {
          set({ ...text, body: event.target.value });
        }}
        css={placed({ marginTop: 14 })}
      />
      <At problems={problemsAt(problems, 'body')} />
      {mayChange ? <Pieces onPiece={put} /> : null}
      <PersonalWindow text={text} problems={problems} mayChange={mayChange} restsOn={trial?.text?.restsOn ?? []} onChange={set} />
    </BenchFrame>
  );
}

/** What can be put in at the caret: usual pieces, and any field. */
function Pieces({ onPiece }: { readonly onPiece: (piece: string) => void }) {
  const fields = useFields();
  const [picked, setPicked] = useState('');
  const slots = [
    ...fields.all('company').map((field) => ({ slot: `company.${field.key}`, label: `company: ${field.label}` })),
    ...fields.all('person').map((field) => ({ slot: field.key, label: field.label })),
  ];
  return (
    <div className="pieces">
      <span className="quiet">put in:</span>
      {USUAL.map((piece) => (
        <button
          key={piece}
          className="linkish"
          onClick={() => {
            onPiece(piece);
          }}
        >
          {piece}
        </button>
      ))}
      <TextField
        select
        size="small"
        value={picked}
        onChange={(event) => {
          setPicked('');
          onPiece(`{${event.target.value}}`);
        }}
        slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': 'Put in a field' } }}
      >
        <MenuItem value="">a field …</MenuItem>
        {slots.map(({ slot, label }) => (
          <MenuItem key={slot} value={slot}>
            {label}
          </MenuItem>
        ))}
      </TextField>
    </div>
  );
}
