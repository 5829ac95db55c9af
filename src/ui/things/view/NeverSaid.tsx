/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useState } from 'react';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { Said } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { TextArea } from '../../kit/TextArea';

interface Props {
  readonly first: readonly string[];
  readonly mayChange: boolean;
}

const phrasesIn = (text: string): readonly string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');

/** Words the business never uses in a message: one on each line, whole words, whatever their case. */
export function NeverSaid({ first, mayChange }: Props) {
  const [kept, setKept] = useState(first);
  const [text, setText] = useState(first.join('\n'));
  const { busy, said, hush, ask } = useAsk();
  const phrases = phrasesIn(text);
  const isChanged = phrases.join('\n') !== kept.join('\n');
  return (
    <aside className="col" css={placed({ width: 300, flex: 'none', padding: '0 16px 16px' })} aria-label="Never said">
      <div className="bar" css={placed({ paddingLeft: 0 })}>
        <h2>Never said</h2>
      </div>
      <Said said={said} onClose={hush} />
      <p className="quiet small">No text, answer or edited message with one of these leaves: it is held, and says which.</p>
      <TextArea
        label="Words never said, one on each line"
        rows={6}
        value={text}
        disabled={!mayChange}
        placeholder="one on each line"
        onChange={setText}
      />
      {mayChange ? (
        <Button
          css={placed({ marginTop: 10 })}
          disabled={busy || !isChanged}
          onClick={() => {
            ask(
              call('keepNeverSaid', { body: { items: [...phrases] } }),
              'Kept. It holds from now on, for what is under way too.',
              ({ items }) => {
                setKept(items);
                setText(items.join('\n'));
              },
            );
          }}
        >
          Keep the list
        </Button>
      ) : null}
    </aside>
  );
}
