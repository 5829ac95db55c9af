/** @jsxImportSource @emotion/react */
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import Link from '../../kit/Link';
import { call } from '../../client';
import { dayTimeText } from '../../kit/format';
import { Tag } from '../../kit/parts';
import { replyTone } from '../../client/replies';
import type { ReplyView } from '../state/types';
import { MessageText } from './MessageText';
import { Body, Card, Deeds, type DecisionProps } from './parts';
import { placed } from '../../kit/placed';

export function OpenReply({ reply, decide, mayDecide, zone }: DecisionProps & { readonly reply: ReplyView }) {
  const router = useRouter();
  const before = reply.thread.filter((message) => message.direction === 'out' && message.state === 'sent').at(-1);
  return (
    <Body>
      <div css={placed({ display: 'flex', gap: 14 })}>
        <Card head={`they wrote, ${dayTimeText(reply.at, zone)}`}>
          <div css={placed({ whiteSpace: 'pre-wrap' })}>{reply.body.split(/\nOn .+ wrote:/)[0]?.trim()}</div>
          <div css={placed({ display: 'flex', gap: 6, flexWrap: 'wrap' })}>
            <Tag tone={replyTone(reply.reading?.kind ?? '')}>
              {reply.reading?.kind}
              {reply.reading?.objection ? ` · ${reply.reading.objection}` : ''}
            </Tag>
            {reply.reading?.when ? <Tag>asks: {reply.reading.when}</Tag> : null}
          </div>
        </Card>
        {before ? (
          <Card head={`we wrote, ${dayTimeText(before.at, zone)}`}>
            <div css={placed({ maxHeight: 168, overflow: 'auto' })} tabIndex={0} role="region" aria-label="What we wrote">
              <MessageText message={before} />
            </div>
          </Card>
        ) : null}
      </div>
      <Deeds
        off={!mayDecide}
        deeds={[
          ...(reply.threadId === null
            ? []
            : [
                {
                  key: 'a',
                  label: 'Answer',
                  main: true,
                  run: () => {
                    router.push(`/messages/${reply.threadId ?? ''}`);
                  },
                },
              ]),
          {
            key: 'n',
            label: 'No answer: I take care of it',
            main: reply.threadId === null,
            run: () => {
              decide(call('handleReply', { params: { id: reply.id }, body: {} }));
            },
          },
        ]}
      >
        {reply.personId ? (
          <Button component={Link} href={`/records/people/${reply.personId}`}>
            {reply.personName}
          </Button>
        ) : null}
        <span className="quiet small" css={placed({ alignSelf: 'center' })}>
          The follow-up has stopped by itself.
        </span>
      </Deeds>
    </Body>
  );
}
