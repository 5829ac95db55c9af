'use client';
import { Button } from '@mui/material';
import { OBJECTIONS } from '../../../core/answers';
import { SAYABLE, type Objection, type ReplyKind } from '../../../core/reply';
import { call } from '../../client';
import type { Asking } from '../../client/use-ask';
import Link from '../../kit/Link';
import { teachesText, thenText, withKind } from '../state/correct';
import { useCorrection } from './useCorrection';
import '../../kit/own-field.css';
import './not-so.css';

interface Props {
  readonly messageId: string;
  /** the sentence that decided, if one did */
  readonly quote: string | null;
  readonly asking: Pick<Asking, 'busy' | 'ask'>;
  readonly onDone: () => void;
  readonly onClose: () => void;
}

/** Says what a mail is: its kind, the sentence that shows it, what follows at once, and which other mails it changes; tried while it is chosen. */
export function NotSo({ messageId, quote, asking: { busy, ask }, onDone, onClose }: Props) {
  const { correction, setCorrection, sentences, trial, problem } = useCorrection(messageId, quote);
  const keep = (): void => {
    ask(call('correctReading', { params: { id: messageId }, body: correction }), 'Corrected: the answer is drafted anew.', onDone);
  };
  return (
    <form
      className="not-so"
      aria-label="What it is"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <label>
        <span className="quiet small">it is</span>
        <select
          className="own-field"
          value={correction.kind}
          onChange={(event) => {
            setCorrection(withKind(correction, event.target.value as ReplyKind));
          }}
        >
          {SAYABLE.map((kind) => (
            <option key={kind}>{kind}</option>
          ))}
        </select>
      </label>
      {correction.kind === 'objection' ? (
        <label>
          <span className="quiet small">about</span>
          <select
            className="own-field"
            value={correction.objection ?? 'price'}
            onChange={(event) => {
              setCorrection({ ...correction, objection: event.target.value as Objection });
            }}
          >
            {OBJECTIONS.map((about) => (
              <option key={about}>{about}</option>
            ))}
          </select>
        </label>
      ) : null}
      <label className="words">
        <span className="quiet small">as these words say</span>
        <select
          className="own-field"
          value={correction.words ?? ''}
          disabled={sentences === null}
          onChange={(event) => {
            setCorrection({ ...correction, words: event.target.value === '' ? null : event.target.value });
          }}
        >
          {(sentences ?? []).map((sentence) => (
            <option key={sentence}>{sentence}</option>
          ))}
          <option value="">no words: only this mail</option>
        </select>
      </label>
      {problem ? (
        <p className="in-brick small" role="alert">
          {problem}
        </p>
      ) : null}
      {trial ? (
        <div className="small then" role="status">
          <p>{thenText(trial.follows)}</p>
          <p className="quiet">{teachesText(trial, correction.words)}</p>
          {trial.other.slice(0, 4).map((mail) => (
            <p key={mail.messageId} className="cut">
              {mail.threadId ? <Link href={`/messages/${mail.threadId}`}>{mail.personName}</Link> : mail.personName}{' '}
              <span className="quiet">
                “{mail.quote}” was {mail.was}
              </span>
            </p>
          ))}
        </div>
      ) : null}
      <div className="deeds">
        <Button type="submit" variant="contained" disabled={busy || trial === null}>
          Say it so
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </form>
  );
}
