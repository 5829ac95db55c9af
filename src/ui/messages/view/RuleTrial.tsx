'use client';
import { useEffect, useState } from 'react';
import type { HoldTrialView } from '../../../api';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { dayTimeText } from '../../kit/format';
import Link from '../../kit/Link';
import { Tag } from '../../kit/parts';
import { trialSums, type Tried } from '../state/rules';

interface Props {
  readonly mailbox: string;
  readonly rules: string;
  readonly lookedAt: number;
  readonly isChanged: boolean;
  readonly zone: string;
}
const TYPED_MS = 500;

/** What the rules would do with the last mails that came: tried while they are typed. */
export function RuleTrial({ mailbox, rules, lookedAt, isChanged, zone }: Props) {
  const [trial, setTrial] = useState<HoldTrialView | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isCurrent = true;
    const timer = setTimeout(() => {
      call('tryHoldRules', { body: { mailbox, rules, lookedAt } }).then(
        (next) => {
          if (!isCurrent) return;
          setTrial(next);
          setProblem(null);
        },
        (error: unknown) => {
          if (isCurrent) setProblem(sayProblem(error));
        },
      );
    }, TYPED_MS);
    return () => {
      isCurrent = false;
      clearTimeout(timer);
    };
  }, [mailbox, rules, lookedAt]);
  const sums = trial && trialSums(trial.items);
  return (
    <aside className="col paper rule-trial" aria-label="Tried on what came" tabIndex={0}>
      <div className="bar ruled">
        <h2 className="grow">Tried on what came</h2>
        <span className="quiet">{trial ? plural(trial.items.length, 'mail') : 'reading …'}</span>
      </div>
      {problem ? (
        <p className="in-brick lead" role="alert">
          {problem}
        </p>
      ) : null}
      {sums && trial.items.length > 0 ? (
        <p className="sums" role="status">
          <b>{sums.wait}</b> wait for a person, <b>{sums.alone}</b> would go alone
          {isChanged ? <span className="quiet">; as it stands {plural(sums.waited, 'waits', 'wait')}</span> : null}
        </p>
      ) : null}
      {trial?.items.length === 0 ? (
        <p className="quiet lead">Nobody has answered a mail from here yet: rules are tried on the answers that come.</p>
      ) : null}
      {sums ? (
        <>
          {sums.changed.length > 0 ? <h3 className="part">would change</h3> : null}
          <Mails items={sums.changed} zone={zone} />
          {sums.changed.length > 0 && sums.same.length > 0 ? <h3 className="part">stays as it is</h3> : null}
          <Mails items={sums.same} zone={zone} />
        </>
      ) : null}
    </aside>
  );
}

function Mails({ items, zone }: { readonly items: readonly Tried[]; readonly zone: string }) {
  return items.map(({ messageId, threadId, personName, group, quote, at, after }) => (
    <div key={messageId} className="tried">
      <div className="who">
        <Link href={`/messages/${threadId}`} className="strong cut">
          {personName}
        </Link>
        <span className="quiet small cut">
          {group} · {dayTimeText(at, zone)}
        </span>
        <Tag tone={after.does === 'send' ? 'moss' : 'brass'}>
          {after.does === 'send' ? 'goes alone' : after.lookedAt ? 'looked at' : 'waits'}
        </Tag>
      </div>
      {quote ? <div className="small cut">“{quote}”</div> : null}
      <div className="quiet small">
        {after.line === null ? '' : `line ${after.line}: `}
        {after.says}
      </div>
    </div>
  ));
}
