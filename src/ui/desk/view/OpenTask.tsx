/** @jsxImportSource @emotion/react */
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { MOST_TRIES, sayThen, TASK_OUTCOMES } from '../../../core/sending';
import { call } from '../../client';
import { clockText, dayTimeText, zoneText } from '../../kit/format';
import { useShortcuts } from '../../kit/keys';
import Link from '../../kit/Link';
import { placed } from '../../kit/placed';
import type { TaskView } from '../state/types';
import { Body, Card, Deeds, type DecisionProps } from './parts';

const HEAD: Readonly<Record<TaskView['channel'], string>> = {
  call: 'what to speak of',
  'profile note': 'the note, as it is left',
  letter: 'the letter',
};

/** A touch that a person does: whom, where, with which words, and a key for each way it may end. */
export function OpenTask({ task, now, zone, decide, mayDecide }: DecisionProps & { readonly task: TaskView }) {
  const [words, setWords] = useState('');
  const outcomes = TASK_OUTCOMES[task.channel];
  const [main] = outcomes;
  return (
    <Body>
      <div css={placed({ display: 'flex', gap: 14, alignItems: 'stretch' })}>
        <Card head={`${HEAD[task.channel]} · ${task.subject}`}>
          <div css={placed({ whiteSpace: 'pre-wrap' })}>{task.body}</div>
        </Card>
        <Where task={task} now={now} zone={zone} mayDecide={mayDecide} />
      </div>
      {mayDecide ? (
        <TextField
          fullWidth
          size="small"
          placeholder={task.channel === 'call' ? 'What was said (kept with the person)' : 'A word about it (optional)'}
          value={words}
          onChange={(event) => {
            setWords(event.target.value);
          }}
          slotProps={{ htmlInput: { 'aria-label': 'What was said', maxLength: 2000 } }}
        />
      ) : null}
      <Deeds
        off={!mayDecide}
        deeds={outcomes.map((outcome) => ({
          key: outcome.key,
          label: outcome.label,
          main: outcome === main,
          run: () => {
            decide(call('endTask', { params: { id: task.id }, body: { outcome: outcome.id, words } }));
          },
        }))}
      />
      <p className="quiet small" css={placed({ margin: 0 })}>
        {outcomes.map((outcome) => `${outcome.label}: ${sayThen(outcome, task.attempts)}`).join(' · ')}
      </p>
    </Body>
  );
}

type WhereProps = Pick<DecisionProps, 'now' | 'zone' | 'mayDecide'> & { readonly task: TaskView };
/** The number with their time of day, the envelope, or the words to be copied; and the way to all that is known. */
function Where({ task, now, zone, mayDecide }: WhereProps) {
  return (
    <div css={placed({ width: 260, flex: 'none', display: 'flex', flexDirection: 'column', gap: 10 })}>
      {task.channel === 'call' ? <PhoneNumber task={task} now={now} zone={zone} /> : null}
      {task.channel === 'profile note' ? <Copy task={task} off={!mayDecide} /> : null}
      {task.channel === 'letter' ? (
        <>
          <div css={placed({ whiteSpace: 'pre-line' })}>{task.reach ?? 'No street and place are known any more.'}</div>
          {task.reach === null ? null : (
            <a className="small" href={`/api/v1/tasks/${task.id}/letter`} target="_blank" rel="noreferrer">
              Print it (PDF)
            </a>
          )}
        </>
      ) : null}
      <div className="quiet small">
        due {dayTimeText(task.dueAt, zone)}
        {task.attempts > 0 ? ` · try ${task.attempts + 1} of ${MOST_TRIES}` : ''}
        {task.flowName === null ? null : (
          <>
            {' · '}
            <Link href={task.tripId === null ? `/flows/${task.flowId ?? ''}` : `/trips/${task.tripId}`}>{task.flowName}</Link>
          </>
        )}
      </div>
      <div className="small">
        <Link href={`/records/people/${task.personId}`}>All we know about {task.personName}</Link>
        {task.threadId === null ? null : (
          <>
            <br />
            <Link href={`/messages/${task.threadId}`}>What was written so far</Link>
          </>
        )}
      </div>
    </div>
  );
}

function PhoneNumber({ task, now, zone }: Pick<WhereProps, 'task' | 'now' | 'zone'>) {
  if (task.reach === null) return <div className="in-brick">No number is known any more.</div>;
  return (
    <div>
      <a href={`tel:${task.reach.replace(/[^\d+]/g, '')}`} css={placed({ fontSize: 20, fontWeight: 600 })}>
        {task.reach}
      </a>
      {task.zone === zone ? null : (
        <div className="quiet small">
          {clockText(now, task.zone)} where they are ({zoneText(task.zone)})
        </div>
      )}
    </div>
  );
}

function Copy({ task, off }: { readonly task: TaskView; readonly off: boolean }) {
  const [copied, setCopied] = useState(false);
  const copy = (): void => {
    void navigator.clipboard.writeText(task.body).then(() => {
      setCopied(true);
    });
  };
  useShortcuts({ c: copy }, off);
  return (
    <div>
      <div className="strong">{[task.reach, task.companyName].filter(Boolean).join(' · ')}</div>
      <div css={placed({ display: 'flex', gap: 8, alignItems: 'center', marginTop: 6 })}>
        <Button variant="outlined" onClick={copy}>
          Copy the note <kbd aria-hidden>C</kbd>
        </Button>
        <span className="quiet small" role="status">
          {copied ? 'copied' : `${task.body.length} characters`}
        </span>
      </div>
    </div>
  );
}
