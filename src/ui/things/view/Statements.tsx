/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Statement } from '../../../core/answers';
import { call, sayProblem } from '../../client';
import { Empty, Said, TopBar, type SaidText } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { MessageTabs } from './MessageTabs';
import { NeverSaid } from './NeverSaid';
import './things.css';

interface Props {
  readonly first: readonly Statement[];
  readonly never: readonly string[];
  readonly mayChange: boolean;
}
const PARTS = [
  ['says', 'What we say of ourselves', 'We …'],
  ['by', 'Who stands behind it', 'a name'],
  ['proof', 'What proves it', 'a paper, a job, a list'],
] as const;

const idFor = (items: readonly Statement[]): string => {
  for (let i = items.length + 1; ; i++) if (!items.some((item) => item.id === `s${i}`)) return `s${i}`;
};

/** What the business says of itself, each once, with who stands behind it: texts may claim this and no more. */
export function Statements({ first, never, mayChange }: Props) {
  const router = useRouter();
  const [kept, setKept] = useState(first);
  const [items, setItems] = useState(first);
  const [said, setSaid] = useState<SaidText | null>(null);
  const [busy, setBusy] = useState(false);
  const isChanged = JSON.stringify(items) !== JSON.stringify(kept);
  const whole = items.every((item) => item.says.trim() !== '');
  const keep = (): void => {
    setBusy(true);
    call('keepStatements', { body: { items: [...items] } }).then(
      (next) => {
        setBusy(false);
        setKept(next.items);
        setItems(next.items);
        setSaid({ calm: true, text: 'Kept. Texts that claim anything else are marked where they do.' });
        router.refresh();
      },
      (error: unknown) => {
        setBusy(false);
        setSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  return (
    <>
      <TopBar title="Messages" tags={<MessageTabs on="statements" />}>
        {mayChange ? (
          <>
            <Button
              disabled={busy || !isChanged}
              onClick={() => {
                setItems(kept);
              }}
            >
              Undo
            </Button>
            <Button variant="contained" disabled={busy || !isChanged || !whole} onClick={keep}>
              Keep
            </Button>
          </>
        ) : null}
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <div className="cols">
        <section className="col paper grow thing-main" tabIndex={0} aria-label="What we say of ourselves">
          <p className="quiet" css={placed({ maxWidth: 720, margin: '12px 0' })}>
            A text may say of a reader what a fact says, and of ourselves what stands here. A sentence such as “we work with several …” that
            nothing here stands behind is marked where it is written.
          </p>
          {items.length === 0 ? (
            <Empty title="Nothing said yet">Write down once what is true of us, who answers for it, and what proves it.</Empty>
          ) : (
            <table className="plain criteria">
              <thead>
                <tr>
                  {PARTS.map(([part, label]) => (
                    <th key={part}>{label}</th>
                  ))}
                  <th />
                </tr>
              </thead>
              <tbody>
                {items.map((item, i) => (
                  <tr key={item.id}>
                    {PARTS.map(([part, label, sample]) => (
                      <td key={part} css={placed({ width: part === 'says' ? '50%' : '21%' })}>
                        <textarea
                          className="bare"
                          rows={2}
                          css={placed({ width: '100%', resize: 'vertical' })}
                          aria-label={`${label}, ${i + 1}`}
                          placeholder={sample}
                          value={item[part]}
                          disabled={!mayChange}
                          onChange={(event) => {
                            setItems(items.map((each) => (each.id === item.id ? { ...each, [part]: event.target.value } : each)));
                          }}
                        />
                      </td>
                    ))}
                    <td className="right" css={placed({ whiteSpace: 'nowrap' })}>
                      {mayChange ? (
                        <button
                          className="linkish small"
                          aria-label={`Take out statement ${i + 1}`}
                          onClick={() => {
                            setItems(items.filter((each) => each.id !== item.id));
                          }}
                        >
                          take out
                        </button>
                      ) : null}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {mayChange ? (
            <Button
              css={placed({ marginTop: 10 })}
              onClick={() => {
                setItems([...items, { id: idFor(items), says: '', by: '', proof: '' }]);
              }}
            >
              Add a statement
            </Button>
          ) : null}
        </section>
        <NeverSaid first={never} mayChange={mayChange} />
      </div>
    </>
  );
}
