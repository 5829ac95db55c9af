'use client';
import { useRouter } from 'next/navigation';
import type { CorrectionsView } from '../../../api';
import { plural } from '../../../core/base';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import Link from '../../kit/Link';
import { Said } from '../../kit/parts';

const said = (kind: string, objection: string | null): string => (objection === null ? kind : `${kind} · ${objection}`);

/** What corrections have taught, as words that can be read and forgotten. */
export function Taught({ items, mayForget }: { readonly items: CorrectionsView['items']; readonly mayForget: boolean }) {
  const router = useRouter();
  const { busy, said: told, hush, ask } = useAsk();
  return (
    <section className="agreements" aria-label="What corrections have taught">
      <h2>What corrections have taught</h2>
      <Said said={told} onClose={hush} />
      {items.length === 0 ? (
        <p className="quiet">
          Nothing yet. “Not so” beside what was understood of a mail says what it is; words that mean it are understood so from then on.
        </p>
      ) : null}
      {items.map((item) => (
        <div key={item.messageId} className="taught">
          <span className="cut">“{item.words}”</span>
          <span className="small">
            is <b>{said(item.kind, item.objection)}</b> <span className="quiet">not {said(item.wasKind, item.wasObjection)}</span>
          </span>
          <span className="quiet small">
            {item.threadId ? <Link href={`/messages/${item.threadId}`}>{item.personName ?? 'a mail'}</Link> : (item.personName ?? '')} ·{' '}
            {item.madeBy ?? ''} · {item.used === 0 ? 'no mail like it since' : `understood by it ${plural(item.used, 'time')}`}
          </span>
          {mayForget ? (
            <button
              className="linkish"
              disabled={busy}
              onClick={() => {
                ask(
                  call('forgetCorrection', { params: { id: item.messageId }, body: {} }),
                  'Forgotten: mails are understood without it.',
                  () => {
                    router.refresh();
                  },
                );
              }}
            >
              forget it
            </button>
          ) : null}
        </div>
      ))}
    </section>
  );
}
