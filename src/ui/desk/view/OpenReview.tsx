/** @jsxImportSource @emotion/react */
import { Button, TextField } from '@mui/material';
import Link from '../../kit/Link';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { printValue } from '../../../core/fields';
import { call } from '../../client';
import { pageText } from '../../kit/format';
import { Tag } from '../../kit/parts';
import type { MessageView, ReviewView } from '../state/types';
import { MessageText } from './MessageText';
import { Body, Card, Deeds, type DecisionProps } from './parts';
import { placed } from '../../kit/placed';

function Checks({ message }: { readonly message: MessageView }) {
  const failed = message.checks.filter((check) => !check.ok);
  return (
    <div css={placed({ display: 'flex', gap: 8, flexWrap: 'wrap', alignItems: 'center' })}>
      {failed.length === 0 ? (
        <Tag tone="moss" title={message.checks.map((check) => check.id).join(', ')}>
          ✓ {message.checks.length} checks
        </Tag>
      ) : (
        failed.map((check) => (
          <Tag key={check.id} tone="brick">
            {check.says}
          </Tag>
        ))
      )}
      <span className="quiet small">{plural(message.facts.length, 'fact')} used</span>
      <span className="quiet small">{plural(message.body.length, 'character')}</span>
    </div>
  );
}

export function OpenReview({ review, decide, mayDecide }: DecisionProps & { readonly review: ReviewView }) {
  const { message } = review;
  const [mode, setMode] = useState<'read' | 'edit' | 'sentence' | 'refuse'>('read');
  const [subject, setSubject] = useState(message.subject);
  const [body, setBody] = useState(message.body);
  const [own, setOwn] = useState('');
  const send = (more: { readonly subject?: string; readonly body?: string; readonly sentence?: string }): void => {
    decide(call('decideReview', { params: { id: review.id }, body: { does: 'approve', ...more } }));
  };
  const back = (
    <Button
      onClick={() => {
        setMode('read');
      }}
    >
      Back
    </Button>
  );
  return (
    <Body>
      <div css={placed({ display: 'flex', gap: 14, alignItems: 'stretch' })}>
        <Card head={`would go out · e-mail · in the reader’s office hours`}>
          {mode === 'edit' ? (
            <>
              <TextField
                value={subject}
                onChange={(event) => {
                  setSubject(event.target.value);
                }}
                slotProps={{ htmlInput: { 'aria-label': 'Subject' } }}
              />
              <TextField
                multiline
                minRows={9}
                value={body}
                onChange={(event) => {
                  setBody(event.target.value);
                }}
                slotProps={{ htmlInput: { 'aria-label': 'Message' } }}
                autoFocus
              />
            </>
          ) : (
            <>
              <div className="strong">{message.subject}</div>
              <MessageText message={message} />
            </>
          )}
          <Checks message={message} />
        </Card>
        <div css={placed({ width: 240, flex: 'none', display: 'flex', flexDirection: 'column', gap: 12 })}>
          <div>
            <h2>What it rests on</h2>
            {message.facts.map((fact) => (
              <div key={fact.field} className="small" css={placed({ marginTop: 6 })}>
                <div className="quiet">
                  {fact.field.replace(/_/g, ' ')}: <span css={placed({ color: 'var(--ink)' })}>{printValue(fact.value)}</span>
                </div>
                {fact.quote ? (
                  <div>
                    <span className="quote">“{fact.quote}”</span>
                  </div>
                ) : null}
                {fact.url ? (
                  <div className="quiet cut" title={fact.url}>
                    {pageText(fact.url)}
                  </div>
                ) : null}
              </div>
            ))}
            {message.facts.length === 0 ? <p className="quiet small">No fact: the text is fixed.</p> : null}
          </div>
          {review.then.length > 0 ? (
            <div>
              <h2>Then, without an answer</h2>
              {review.then.map((touch) => (
                <div key={touch.day} className="quiet small">
                  +{touch.day} working days: {touch.subject}
                </div>
              ))}
            </div>
          ) : null}
          <Link className="small" href={`/records/people/${review.personId}`}>
            All we know about {review.personName}
          </Link>
        </div>
      </div>
      {mode === 'sentence' ? (
        <TextField
          autoFocus
          fullWidth
          placeholder="A sentence of your own; it goes before the closing line"
          value={own}
          onChange={(event) => {
            setOwn(event.target.value);
          }}
          slotProps={{ htmlInput: { 'aria-label': 'A sentence of your own' } }}
        />
      ) : null}
      {mode === 'refuse' ? (
        <TextField
          autoFocus
          fullWidth
          placeholder="Why not? (optional)"
          value={own}
          onChange={(event) => {
            setOwn(event.target.value);
          }}
          slotProps={{ htmlInput: { 'aria-label': 'Why not' } }}
        />
      ) : null}
      {mode === 'read' ? (
        <Deeds
          off={!mayDecide}
          deeds={[
            {
              key: 'a',
              label: 'Approve',
              main: true,
              run: () => {
                send({});
              },
            },
            {
              key: 'e',
              label: 'Edit',
              run: () => {
                setMode('edit');
              },
            },
            {
              key: 's',
              label: 'Add a sentence of mine',
              run: () => {
                setMode('sentence');
              },
            },
            {
              key: 'x',
              label: 'Refuse',
              run: () => {
                setMode('refuse');
              },
            },
            {
              key: 'z',
              label: 'Later',
              run: () => {
                decide(call('decideReview', { params: { id: review.id }, body: { does: 'later' } }));
              },
            },
          ]}
        />
      ) : (
        <div css={placed({ display: 'flex', gap: 8 })}>
          {mode === 'edit' ? (
            <Button
              variant="contained"
              onClick={() => {
                send({ subject, body });
              }}
            >
              Approve with these words
            </Button>
          ) : null}
          {mode === 'sentence' ? (
            <Button
              variant="contained"
              disabled={own.trim() === ''}
              onClick={() => {
                send({ sentence: own });
              }}
            >
              Approve with my sentence
            </Button>
          ) : null}
          {mode === 'refuse' ? (
            <Button
              variant="contained"
              onClick={() => {
                decide(call('decideReview', { params: { id: review.id }, body: { does: 'refuse', why: own } }));
              }}
            >
              Refuse: it does not go out
            </Button>
          ) : null}
          {back}
        </div>
      )}
    </Body>
  );
}
