/** @jsxImportSource @emotion/react */
import { Button, TextField } from '@mui/material';
import { TextArea } from '../../kit/TextArea';
import Link from '../../kit/Link';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { printValue } from '../../../core/fields';
import { call } from '../../client';
import { pageText } from '../../kit/format';
import { LanguageNote } from '../../kit/LanguageNote';
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
      <LanguageNote language={message.language} fallback={message.fallback} />
    </div>
  );
}

type Mode = 'read' | 'edit' | 'sentence' | 'refuse';
interface Draft {
  readonly subject: string;
  readonly body: string;
  /** a sentence to work in, or why not */
  readonly own: string;
}

/** A message that waits for a decision: as it would go out, with what it rests on. */
export function OpenReview({ review, decide, mayDecide }: DecisionProps & { readonly review: ReviewView }) {
  const { message } = review;
  const [mode, setMode] = useState<Mode>('read');
  const [draft, setDraft] = useState<Draft>({ subject: message.subject, body: message.body, own: '' });
  const put = (change: Partial<Draft>): void => {
    setDraft({ ...draft, ...change });
  };
  return (
    <Body>
      <div css={placed({ display: 'flex', gap: 14, alignItems: 'stretch' })}>
        <Card head={`would go out · e-mail · in the reader’s office hours`}>
          {mode === 'edit' ? (
            <EditedMessage draft={draft} put={put} />
          ) : (
            <>
              <div className="strong">{message.subject}</div>
              <MessageText message={message} />
            </>
          )}
          <Checks message={message} />
        </Card>
        <RestsOn review={review} />
      </div>
      {mode === 'sentence' || mode === 'refuse' ? <OwnWords isRefusal={mode === 'refuse'} draft={draft} put={put} /> : null}
      {mode === 'read' ? (
        <ReviewDeeds review={review} decide={decide} mayDecide={mayDecide} onMode={setMode} />
      ) : (
        <Finish mode={mode} review={review} draft={draft} decide={decide} onMode={setMode} />
      )}
    </Body>
  );
}

interface DraftProps {
  readonly draft: Draft;
  readonly put: (change: Partial<Draft>) => void;
}
function EditedMessage({ draft: { subject, body }, put }: DraftProps) {
  return (
    <>
      <TextField
        value={subject}
        onChange={(event) => {
          put({ subject: event.target.value });
        }}
        slotProps={{ htmlInput: { 'aria-label': 'Subject' } }}
      />
      <TextArea
        label="Message"
        rows={9}
        value={body}
        autoFocus
        onChange={(text) => {
          put({ body: text });
        }}
      />
    </>
  );
}

function OwnWords({ isRefusal, draft, put }: DraftProps & { readonly isRefusal: boolean }) {
  return (
    <TextField
      key={String(isRefusal)}
      autoFocus
      fullWidth
      placeholder={isRefusal ? 'Why not? (optional)' : 'A sentence of your own; it goes before the closing line'}
      value={draft.own}
      onChange={(event) => {
        put({ own: event.target.value });
      }}
      slotProps={{ htmlInput: { 'aria-label': isRefusal ? 'Why not' : 'A sentence of your own' } }}
    />
  );
}

/** The facts of the message, what follows without an answer, and the way to all that is known. */
function RestsOn({ review }: { readonly review: ReviewView }) {
  const { message } = review;
  return (
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
  );
}

type DeedProps = Pick<DecisionProps, 'decide'> & { readonly review: ReviewView; readonly onMode: (mode: Mode) => void };
const approve = (review: ReviewView, more: { readonly subject?: string; readonly body?: string; readonly sentence?: string }) =>
  call('decideReview', { params: { id: review.id }, body: { does: 'approve', ...more } });

function ReviewDeeds({ review, decide, mayDecide, onMode }: DeedProps & Pick<DecisionProps, 'mayDecide'>) {
  return (
    <Deeds
      off={!mayDecide}
      deeds={[
        {
          key: 'a',
          label: 'Approve',
          main: true,
          run: () => {
            decide(approve(review, {}));
          },
        },
        {
          key: 'e',
          label: 'Edit',
          run: () => {
            onMode('edit');
          },
        },
        {
          key: 's',
          label: 'Add a sentence of mine',
          run: () => {
            onMode('sentence');
          },
        },
        {
          key: 'x',
          label: 'Refuse',
          run: () => {
            onMode('refuse');
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
  );
}

function Finish({
  mode,
  review,
  draft: { subject, body, own },
  decide,
  onMode,
}: DeedProps & Pick<DraftProps, 'draft'> & { readonly mode: Mode }) {
  return (
    <div css={placed({ display: 'flex', gap: 8 })}>
      {mode === 'edit' ? (
        <Button
          variant="contained"
          onClick={() => {
            decide(approve(review, { subject, body }));
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
            decide(approve(review, { sentence: own }));
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
      <Button
        onClick={() => {
          onMode('read');
        }}
      >
        Back
      </Button>
    </div>
  );
}
