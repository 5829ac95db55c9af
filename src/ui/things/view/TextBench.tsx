/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, TextField } from '@mui/material';
import { useRef, useState } from 'react';
import type { ThingTrial, ThingView } from '../../../api';
import { CHANNELS, channelOf, USUAL_LENGTH, type Channel, type MessageTemplate } from '../../../core/writer';
import { call, sayProblem } from '../../client';
import { useFields } from '../../client/fields';
import { placed } from '../../kit/placed';
import { TextArea } from '../../kit/TextArea';
import { problemsAt, putIn } from '../state/thing';
import { CHANNEL_WORDS } from '../state/plan';
import { placeOf, putWords, wordsAt, type WordingAt } from '../state/wordings';
import { useThing } from './useThing';
import { PersonalWindow } from './PersonalWindow';
import { Readers } from './Readers';
import { BenchFrame } from './BenchFrame';
import { At } from './ThingSide';
import { Tried } from './Tried';
import { Wordings } from './Wordings';

interface Props {
  readonly first: ThingView;
  readonly zone: string;
  readonly mayChange: boolean;
}
const USUAL = ['{first_name or "there"}', '{company.name}', '{personal line}', '{sender.name}'];

/** A text: its fixed words and slots in each wording, what its personal line may rest on, and how five different readers would get it. */
export function TextBench({ first, zone, mayChange }: Props) {
  const state = useThing<MessageTemplate>(first);
  const { body: text, trial, set } = state;
  const [chosen, setChosen] = useState<WordingAt>(null);
  // Another version may have fewer wordings.
  const at = chosen !== null && text.wordings?.[chosen] ? chosen : null;
  return (
    <BenchFrame
      state={state}
      zone={zone}
      mayChange={mayChange}
      label="Text"
      sideLabel="Readers"
      sideWidth={470}
      side={
        <Readers
          trial={trial?.text ?? null}
          trying={state.trying}
          onSendToMe={
            mayChange
              ? (reader) => {
                  call('sendToMe', { body: { text, personId: reader.id } }).then(
                    ({ to }) => {
                      state.say({ calm: true, text: `Sent to ${to}, as ${reader.name} would get it.` });
                    },
                    (error: unknown) => {
                      state.say({ calm: false, text: sayProblem(error) });
                    },
                  );
                }
              : undefined
          }
        />
      }
    >
      <div className="head-row">
        <h2>Fixed words and slots</h2>
        <span className="grow" />
        <TextField
          select
          label="written for"
          value={channelOf(text)}
          disabled={!mayChange}
          onChange={(event) => {
            set(writtenFor(text, event.target.value as Channel));
          }}
          css={placed({ minWidth: 130 })}
        >
          {CHANNELS.map((channel) => (
            <MenuItem key={channel} value={channel}>
              {CHANNEL_WORDS[channel]}
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
      <Wordings text={text} at={at} trial={trial?.text ?? null} mayChange={mayChange} onChoose={setChosen} onChange={set} />
      <Tried id={first.id} no={state.view.no} text={text} at={at} mayChange={mayChange} onChange={set} />
      <WordsOf key={String(at)} text={text} at={at} problems={trial?.problems ?? []} mayChange={mayChange} onChange={set} />
      <PersonalWindow
        text={text}
        at={at}
        problems={trial?.problems ?? []}
        mayChange={mayChange}
        restsOn={trial?.text?.restsOn ?? []}
        onChange={set}
      />
    </BenchFrame>
  );
}

/** A text for another channel; its length goes with it where nobody has set another. */
function writtenFor(text: MessageTemplate, channel: Channel): MessageTemplate {
  const before = channelOf(text);
  const { channel: _, ...rest } = text;
  const maxLength = text.maxLength === USUAL_LENGTH[before] ? USUAL_LENGTH[channel] : text.maxLength;
  return { ...rest, maxLength, ...(channel !== 'e-mail' && { channel }) };
}

interface WordsProps {
  readonly text: MessageTemplate;
  readonly at: WordingAt;
  readonly problems: ThingTrial['problems'];
  readonly mayChange: boolean;
  readonly onChange: (text: MessageTemplate) => void;
}
/** Subject and words of the wording that is open. */
function WordsOf({ text, at, problems, mayChange, onChange }: WordsProps) {
  const area = useRef<HTMLTextAreaElement>(null);
  const words = wordsAt(text, at);
  const change = (next: Partial<typeof words>): void => {
    onChange(putWords(text, at, next));
  };
  const put = (piece: string): void => {
    const next = putIn(words.body, area.current?.selectionStart ?? words.body.length, piece);
    change({ body: next.text });
    requestAnimationFrame(() => {
      area.current?.focus();
      area.current?.setSelectionRange(next.at, next.at);
    });
  };
  return (
    <>
      <TextField
        fullWidth
        label={channelOf(text) === 'e-mail' ? 'subject' : 'what it is about'}
        value={words.subject}
        disabled={!mayChange}
        onChange={(event) => {
          change({ subject: event.target.value });
        }}
      />
      <At problems={problemsAt(problems, placeOf(at, 'subject'))} />
      <div lang={words.language} css={placed({ marginTop: 14 })}>
        <TextArea
          label="words"
          shown
          rows={11}
          area={area}
          value={words.body}
          disabled={!mayChange}
          onChange={(body) => {
            change({ body });
          }}
        />
      </div>
      <At problems={problemsAt(problems, placeOf(at, 'body'))} />
      {at === null ? null : (
        <At problems={[...problemsAt(problems, placeOf(at, 'when')), ...problemsAt(problems, placeOf(at, 'language'))]} />
      )}
      {mayChange ? <Pieces onPiece={put} /> : null}
    </>
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
