/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useRef, useState, type ReactNode } from 'react';
import type { AnswerDraftView } from '../../../api';
import { plural } from '../../../core/base';
import { call } from '../../client';
import type { Asking } from '../../client/use-ask';
import { dayTimeText } from '../../kit/format';
import { useShortcuts } from '../../kit/keys';
import Link from '../../kit/Link';
import { languageName } from '../../kit/languages';
import { placed } from '../../kit/placed';
import { TextArea } from '../../kit/TextArea';
import { otherAnswer, placesIn, takenIds, workedIn } from '../state/answer';
import { Candidates } from './Candidates';
import { OwnSentence } from './OwnSentence';
import { RestsOn } from './RestsOn';
import './answer.css';

interface Props {
  readonly threadId: string;
  readonly personName: string;
  readonly first: AnswerDraftView;
  /** their last message waits for somebody */
  readonly waits: boolean;
  readonly mayDecide: boolean;
  readonly zone: string;
  /** of the conversation: what is said of an answer stays when the conversation has gone on */
  readonly asking: Pick<Asking, 'busy' | 'ask'>;
  /** who has the conversation */
  readonly children: ReactNode;
}

/** The answer that would go out: what was agreed to say, what it rests on, and what happens then; approved, changed or left by key. */
export function Answer({ threadId, personName, first, waits, mayDecide, zone, asking: { busy, ask }, children }: Props) {
  const router = useRouter();
  const [draft, setDraft] = useState(first);
  const [typed, setTyped] = useState<string | null>(null);
  const area = useRef<HTMLTextAreaElement>(null);
  const [own, setOwn] = useState('');
  const [place, setPlace] = useState(placesIn(first) - 1);
  const body = typed ?? workedIn(draft, own, place);
  const refresh = (): void => {
    router.refresh();
  };
  const take = (answer: string): void => {
    ask(call('draftAnswer', { params: { id: threadId }, query: { answer } }), null, (next) => {
      setDraft(next);
      setPlace(placesIn(next) - 1);
      setTyped(null);
    });
  };
  const approve = (): void => {
    const sent = call('sendAnswer', {
      params: { id: threadId },
      body: { body, inReplyTo: draft.inReplyTo, answers: [...takenIds(draft)] },
    });
    ask(sent, ({ dueAt }) => `It goes out ${dayTimeText(dueAt, zone)}.`, refresh);
  };
  const noAnswer = (): void => {
    if (draft.inReplyTo !== null)
      ask(call('handleReply', { params: { id: draft.inReplyTo }, body: {} }), 'Taken care of: nothing goes out.', refresh);
  };
  const other = otherAnswer(draft);
  const deeds: Readonly<Record<string, (() => void) | undefined>> = {
    // Where nothing waits for an answer there is no draft of one: what goes out then is what somebody wrote.
    a: mayDecide && !busy && body.trim() !== '' && (draft.inReplyTo !== null || typed !== null) ? approve : undefined,
    e: () => area.current?.focus(),
    o: other === undefined ? undefined : () => take(other),
    n: waits && mayDecide ? noAnswer : undefined,
  };
  useShortcuts(deeds);
  return (
    <aside className="col paper answer" aria-label="The answer that would go out" tabIndex={0}>
      <div className="bar ruled">
        <h2 className="grow">{draft.inReplyTo === null ? 'Write to them' : 'The answer that would go out'}</h2>
        <span className="quiet">
          in {languageName(draft.language)}
          {draft.fallback ? <span className="in-brass">, agreed in another language only</span> : null}
        </span>
      </div>
      {draft.held ? <Held held={draft.held} /> : null}
      <Candidates taken={draft.taken} busy={busy} onTake={take} />
      <div className="words">
        <TextArea
          label={`Answer to ${personName}`}
          rows={8}
          value={body}
          disabled={!mayDecide}
          area={area}
          onChange={setTyped}
          onKeyDown={(event) => {
            if (event.key === 'Escape') area.current?.blur();
            if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) deeds.a?.();
          }}
        />
        {typed !== null && typed !== draft.body ? (
          <p className="quiet small">
            Your own words: looked at once more when you approve.{' '}
            <button
              className="linkish"
              onClick={() => {
                setTyped(null);
              }}
            >
              take the draft back
            </button>
          </p>
        ) : null}
      </div>
      {mayDecide && typed === null && draft.inReplyTo !== null ? (
        <OwnSentence value={own} at={place} places={placesIn(draft)} onChange={setOwn} onMove={setPlace} />
      ) : null}
      <RestsOn draft={draft} />
      {mayDecide ? (
        <div className="deeds">
          <Deed letter="A" label="Approve" main run={deeds.a} />
          <Deed letter="E" label="Edit" run={deeds.e} />
          {draft.inReplyTo === null ? null : (
            <>
              <Deed letter="O" label="Other answer" run={deeds.o} />
              <Deed letter="N" label="No answer" run={deeds.n} />
            </>
          )}
        </div>
      ) : null}
      {children}
      <h3 className="then">What happens then</h3>
      <ul className="plain-list">
        <li>
          {draft.dueAt === null
            ? `nothing can leave: there is no mailbox “${draft.mailbox}”`
            : `${dayTimeText(draft.dueAt, zone)} it goes out in the same thread, from ${draft.mailbox}`}
        </li>
        {draft.drops > 0 ? <li>{plural(draft.drops, 'planned message does', 'planned messages do')} not go any more</li> : null}
        {waits ? <li>their message counts as taken care of</li> : null}
        <li>what they write next is news again, and stands on the desk</li>
      </ul>
    </aside>
  );
}

/** Why it waits: the rule that decided, and where it stands. */
function Held({ held }: { readonly held: NonNullable<AnswerDraftView['held']> }) {
  return (
    <p className="held">
      <b className="in-brass">{held.does === 'hold' ? '❚❚ held' : 'may go alone'}</b>: {held.says} ·{' '}
      <Link href={`/messages/rules?mailbox=${encodeURIComponent(held.mailbox)}`}>
        rules of {held.mailbox}
        {held.line === null ? '' : `, line ${held.line}`}
      </Link>
    </p>
  );
}

function Deed({
  letter,
  label,
  main = false,
  run,
}: {
  readonly letter: string;
  readonly label: string;
  readonly main?: boolean;
  readonly run: (() => void) | undefined;
}) {
  return (
    <Button variant={main ? 'contained' : 'outlined'} disabled={run === undefined} onClick={() => run?.()} css={placed({ gap: 8 })}>
      {label} <kbd>{letter}</kbd>
    </Button>
  );
}
