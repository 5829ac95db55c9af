/** @jsxImportSource @emotion/react */
'use client';
import type { ReactNode } from 'react';
import type { AnswerBookView } from '../../../api';
import { plural } from '../../../core/base';
import { useFields } from '../../client/fields';
import { useMakeThing } from '../../client/use-make-thing';
import { agoText } from '../../kit/format';
import Link from '../../kit/Link';
import { NewThing } from '../../kit/NewThing';
import { Empty, GoRow, Said, Tag, TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { conditionText } from '../state/answer';
import { byAbout, newAnswer } from '../state/book';
import { LedOn } from './Candidates';
import './answer.css';

interface Props {
  readonly book: AnswerBookView;
  readonly now: number;
  readonly mayChange: boolean;
  /** the parts of Messages */
  readonly tabs: ReactNode;
}

/** What we have agreed to say, by what they say; and what is asked that nobody has agreed an answer to. */
export function AnswerBook({ book, now, mayChange, tabs }: Props) {
  const { busy, said, hush, make } = useMakeThing('/messages/answers');
  const write = (ask: Parameters<typeof newAnswer>[0]): void => {
    make(newAnswer(ask));
  };
  const used = book.items.reduce((sum, item) => sum + item.used, 0);
  return (
    <>
      <TopBar
        title="Messages"
        tags={
          <>
            {tabs}
            <span className="quiet">
              {plural(book.items.length, 'answer')}, used {plural(used, 'time')}
            </span>
          </>
        }
      >
        {mayChange ? (
          <NewThing
            one="answer"
            label="Write it"
            busy={busy}
            onName={(name) => {
              write({ name });
            }}
          />
        ) : null}
      </TopBar>
      <Said said={said} onClose={hush} />
      <div className="cols">
        <section className="col paper grow" tabIndex={0} aria-label="Agreed answers">
          {book.items.length === 0 ? (
            <Empty title="Nothing is agreed yet">
              An agreed answer is what we say to an objection or a question: when it fits, in which words, and what may not be said. Drafts
              of answers are made of these.
            </Empty>
          ) : (
            <Agreed items={book.items} now={now} />
          )}
        </section>
        <Waiting waiting={book.waiting} busy={busy} mayChange={mayChange} onWrite={write} />
      </div>
    </>
  );
}

function Agreed({ items, now }: { readonly items: AnswerBookView['items']; readonly now: number }) {
  const fields = useFields();
  return (
    <table className="plain book">
      <thead>
        <tr>
          <th>they say</th>
          <th>our answer and its first words</th>
          <th>fits when</th>
          <th>led on</th>
          <th>changed</th>
        </tr>
      </thead>
      <tbody>
        {byAbout(items).map(({ item, isFirst }) => (
          <GoRow key={item.id} href={`/messages/answers/${item.id}`}>
            <td className="strong in-river">{isFirst ? item.about : ''}</td>
            <td className="said">
              <Link href={`/messages/answers/${item.id}`} className="strong">
                {item.name}
              </Link>{' '}
              {item.retired ? <Tag>retired</Tag> : null}
              <div className="quiet small cut">{item.first}</div>
            </td>
            <td className="small">{item.when === '' ? <span className="quiet">always</span> : conditionText(item.when, fields)}</td>
            <td>
              <LedOn candidate={item} />
            </td>
            <td className="quiet small" title={item.savedBy ?? ''}>
              {item.savedAt === null ? 'as it came' : agoText(item.savedAt, now)}
              <div>{item.languages.join(', ')}</div>
            </td>
          </GoRow>
        ))}
      </tbody>
    </table>
  );
}

function Waiting({
  waiting,
  busy,
  mayChange,
  onWrite,
}: {
  readonly waiting: AnswerBookView['waiting'];
  readonly busy: boolean;
  readonly mayChange: boolean;
  readonly onWrite: (ask: Parameters<typeof newAnswer>[0]) => void;
}) {
  return (
    <aside className="col paper" css={placed({ width: 340, flex: 'none' })} aria-label="Waiting for an answer to be written">
      <div className="bar ruled">
        <h2 className="grow">Waiting for an answer to be written</h2>
        <span className={waiting.length > 0 ? 'in-brass' : 'quiet'}>{plural(waiting.length, 'question')}</span>
      </div>
      {waiting.length === 0 ? (
        <p className="quiet" css={placed({ padding: '10px 16px' })}>
          Every question of the last year has an agreed answer.
        </p>
      ) : null}
      {waiting.map((question) => (
        <div key={question.words} css={placed({ padding: '9px 16px', borderBottom: '1px solid var(--line2)' })}>
          <div css={placed({ display: 'flex', gap: 8 })}>
            <span className="quiet">{question.times} ×</span>
            <span className="strong grow">{question.words}</span>
            {mayChange ? (
              <button
                className="linkish"
                disabled={busy}
                onClick={() => {
                  onWrite({ question: question.words, statement: question.statement });
                }}
              >
                Write it
              </button>
            ) : null}
          </div>
          <div className="quiet small">
            {question.threadId ? <Link href={`/messages/${question.threadId}`}>{question.from[0]}</Link> : question.from[0]}
            {question.from.length > 1 ? ` and ${question.from.length - 1} more` : ''} ·{' '}
            {question.statement ? <span className="in-moss">✓ we say: {question.statement}</span> : 'nothing of ours says'}
          </div>
        </div>
      ))}
      <p className="quiet small" css={placed({ padding: '10px 16px' })}>
        Until one is agreed, a draft says that a colleague is asked.
      </p>
    </aside>
  );
}
