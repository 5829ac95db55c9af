/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useState } from 'react';
import type { HandOverView } from '../../../api';
import { call } from '../../client';
import type { Asking } from '../../client/use-ask';
import '../../kit/own-field.css';
import { useShortcuts } from '../../kit/keys';
import { placed } from '../../kit/placed';
import { firstName, heldText } from '../state/hand-over';

interface Props {
  readonly threadId: string;
  readonly hand: HandOverView;
  readonly asking: Pick<Asking, 'busy' | 'ask'>;
  readonly onDone: () => void;
}

/** Who has the conversation, and the way to hand it to a colleague with a word. */
export function HandOver({ threadId, hand, asking: { busy, ask }, onDone }: Props) {
  const [chosen, setChosen] = useState(hand.to[0]?.id ?? '');
  const [word, setWord] = useState('');
  const to = hand.to.find(({ id }) => id === chosen);
  const give = (userId: string | null, says: string): void => {
    ask(call('handOver', { params: { id: threadId }, body: { userId, word } }), says, () => {
      setWord('');
      onDone();
    });
  };
  const handOver =
    to && hand.mayAnswer && !busy
      ? () => {
          give(to.id, `${to.name} has it now, and is told.`);
        }
      : undefined;
  useShortcuts({ h: handOver });
  return (
    <div className="hand-over">
      <p className={hand.holder !== null && !hand.yours ? 'in-brass' : 'quiet'}>
        {heldText(hand)}
        {hand.holder !== null && hand.mayAnswer ? (
          <>
            {' '}
            <button
              className="linkish"
              disabled={busy}
              onClick={() => {
                give(null, 'Everybody has it again.');
              }}
            >
              give it back to everybody
            </button>
          </>
        ) : null}
      </p>
      {to && hand.mayAnswer ? (
        <div css={placed({ display: 'flex', gap: 8, flexWrap: 'wrap', alignItems: 'center' })}>
          <Button disabled={handOver === undefined} onClick={() => handOver?.()} css={placed({ gap: 8 })}>
            Hand over to {firstName(to.name)} <kbd>H</kbd>
          </Button>
          {hand.to.length > 1 ? (
            <select
              className="own-field"
              aria-label="To whom"
              value={chosen}
              onChange={(event) => {
                setChosen(event.target.value);
              }}
            >
              {hand.to.map(({ id, name, says }) => (
                <option key={id} value={id}>
                  {says.includes('away') ? `${name}, away` : name}
                </option>
              ))}
            </select>
          ) : null}
          <input
            className="own-field"
            aria-label="A word with it"
            placeholder="a word with it"
            value={word}
            maxLength={500}
            onChange={(event) => {
              setWord(event.target.value);
            }}
          />
        </div>
      ) : null}
    </div>
  );
}
