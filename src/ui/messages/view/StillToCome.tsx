/** @jsxImportSource @emotion/react */
'use client';
import { dayTimeText } from '../../kit/format';
import { Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { STATE_WORDS, touchText, wentAlone, type ThreadMessage } from '../state/thread';

interface Props {
  readonly messages: readonly ThreadMessage[];
  readonly mailbox: string;
  readonly zone: string;
  readonly isNarrow: boolean;
  /** undefined: whoever looks may not decide */
  readonly onTakeBack: ((id: string) => void) | undefined;
}

/** What goes out of a conversation by itself, and what does not any more; an answer can be taken back until it has left. */
export function StillToCome({ messages, mailbox, zone, isNarrow, onTakeBack }: Props) {
  return (
    <aside className="col paper" css={placed({ width: isNarrow ? 250 : 400, flex: 'none' })} aria-label="Still to come">
      <div className="bar ruled">
        <h2 className="grow">Still to come</h2>
        <span className="quiet cut">from {mailbox}</span>
      </div>
      {messages.map((message) => {
        const goes = message.state === 'planned';
        return (
          <div key={message.id} css={placed({ padding: '9px 16px', borderBottom: '1px solid var(--line2)' })}>
            <div css={placed({ display: 'flex', gap: 8 })}>
              <span className="strong grow">{touchText(message)}</span>
              <Tag tone={goes ? 'river' : 'plain'}>
                {goes && message.channel !== 'e-mail' ? 'to be done' : (STATE_WORDS[message.state] ?? message.state)}
              </Tag>
            </div>
            <div className="quiet">
              {goes && message.dueAt !== null ? `${dayTimeText(message.dueAt, zone)}, in the reader’s office hours` : (message.says ?? '')}
            </div>
            {goes && message.touch === null ? (
              <div className="small">
                {wentAlone(message) ? (
                  <span className="in-brass">goes alone by a rule</span>
                ) : (
                  <span className="quiet">approved by {message.approvedByName}</span>
                )}
                {onTakeBack ? (
                  <>
                    {' · '}
                    <button
                      className="linkish"
                      onClick={() => {
                        onTakeBack(message.id);
                      }}
                    >
                      take it back
                    </button>
                  </>
                ) : null}
              </div>
            ) : null}
            <details>
              <summary className="quiet">{message.subject}</summary>
              <div css={placed({ whiteSpace: 'pre-wrap', paddingTop: 6 })}>{message.body}</div>
            </details>
          </div>
        );
      })}
      {messages.length === 0 ? (
        <p className="quiet" css={placed({ padding: '10px 16px' })}>
          Nothing more goes out by itself.
        </p>
      ) : null}
      <p className="quiet small" css={placed({ padding: '10px 16px' })}>
        The plan stops by itself at an answer, a bounce or an unsubscribe, and pauses while the reader is away.
      </p>
    </aside>
  );
}
