/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { plural } from '../../../core/base';
import type { Answer } from '../../../api';
import { call, sayProblem } from '../../client';
import { TextArea } from '../../kit/TextArea';
import { agoText, dayTimeText, kb } from '../../kit/format';
import Link from '../../kit/Link';
import { Notice, TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';

type AsideView = Answer<'listSetAside'>['items'][number];
interface Props {
  readonly items: readonly AsideView[];
  readonly now: number;
  readonly zone: string;
  readonly mayTakeIn: boolean;
}
interface Said {
  readonly calm: boolean;
  readonly text: string;
  /** what was dropped can be taken back */
  readonly undo?: string;
}

/** Mails and meetings that could not be taken: each with its reason, opened, mended, brought again or dropped. */
export function SetAside({ items: all, now, zone, mayTakeIn }: Props) {
  const router = useRouter();
  const [chosen, setChosen] = useState<string | null>(all[0]?.id ?? null);
  const [said, setSaid] = useState<Said | null>(null);
  // what was just dropped leaves the list at once, before the page is read again
  const [dropped, setDropped] = useState<ReadonlySet<string>>(new Set());
  const items = all.filter((item) => !dropped.has(item.id));
  const one = items.find((item) => item.id === chosen) ?? items[0];
  const settle = (text: Said): void => {
    setSaid(text);
    router.refresh();
  };
  const drop = (id: string, isDropped: boolean): void => {
    call('dropSetAside', { params: { id }, body: { drop: isDropped } }).then(
      () => {
        setDropped((before) => new Set(isDropped ? [...before, id] : [...before].filter((other) => other !== id)));
        const says = all.find((item) => item.id === id)?.says ?? 'it';
        settle(isDropped ? { calm: true, text: `Dropped: ${says}.`, undo: id } : { calm: true, text: 'It stands here again.' });
      },
      (error: unknown) => {
        setSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  return (
    <>
      <TopBar
        path={<Link href="/sources">Sources</Link>}
        title="Set aside"
        tags={
          <span className="quiet">
            {items.length === 0 ? 'nothing' : `${plural(items.length, 'thing')} that could not be taken; all others went on`}
          </span>
        }
      />
      {said ? (
        <Notice
          calm={said.calm}
          onClose={() => {
            setSaid(null);
          }}
        >
          {said.text}{' '}
          {said.undo === undefined ? null : (
            <button
              className="linkish"
              onClick={() => {
                drop(said.undo ?? '', false);
              }}
            >
              take that back
            </button>
          )}
        </Notice>
      ) : null}
      <div className="cols">
        <section className="col paper grow" tabIndex={0} aria-label="What was set aside">
          {!mayTakeIn ? <p className="empty">What was set aside is looked after by those who take in.</p> : null}
          {mayTakeIn && items.length === 0 ? (
            <p className="empty">
              Nothing is set aside. A mail or meeting that cannot be read comes to stand here as it came, with the reason; the ones behind
              it are taken in all the same.
            </p>
          ) : null}
          <table className="plain">
            <tbody>
              {items.map((item) => (
                <tr key={item.id} aria-selected={item === one}>
                  <td css={placed({ padding: 0 })}>
                    <button
                      css={placed({
                        display: 'block',
                        width: '100%',
                        textAlign: 'left',
                        padding: '8px 16px',
                        border: 0,
                        cursor: 'pointer',
                        background: item === one ? 'var(--chosen)' : 'none',
                        font: 'inherit',
                        color: 'inherit',
                      })}
                      aria-pressed={item === one}
                      onClick={() => {
                        setChosen(item.id);
                      }}
                    >
                      <span className="strong">{item.says}</span>{' '}
                      <span className="quiet small">
                        {item.kind} · {item.intakeName ?? 'answers by mail'} · {agoText(item.at, now)}
                      </span>
                      <span className="in-brick small" css={placed({ display: 'block' })}>
                        ■ {item.why}
                      </span>
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        {one ? <One key={one.id} item={one} zone={zone} onDone={settle} onProblem={setSaid} onDrop={drop} /> : null}
      </div>
    </>
  );
}

interface OneProps {
  readonly item: AsideView;
  readonly zone: string;
  readonly onDone: (said: Said) => void;
  readonly onProblem: (said: Said) => void;
  readonly onDrop: (id: string, isDropped: boolean) => void;
}

function One({ item, zone, onDone, onProblem, onDrop }: OneProps) {
  const [kept, setKept] = useState<string | null>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    let here = true;
    call('getSetAside', { params: { id: item.id } }).then(
      ({ text }) => {
        if (!here) return;
        setKept(text);
        setTyped(text);
      },
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [item.id]);
  const mended = typed !== null && typed !== kept;
  const bring = (): void => {
    setBusy(true);
    call('bringSetAside', { params: { id: item.id }, body: { text: mended ? typed : null } }).then(
      ({ ok, why }) => {
        setBusy(false);
        if (ok) onDone({ calm: true, text: 'It was taken.' });
        else onProblem({ calm: false, text: `It cannot be taken yet: ${why}` });
      },
      (error: unknown) => {
        setBusy(false);
        onProblem({ calm: false, text: sayProblem(error) });
      },
    );
  };
  return (
    <aside className="col" css={placed({ width: 520, flex: 'none', padding: '0 18px 18px' })} aria-label="The one chosen">
      <div className="bar" css={placed({ padding: '8px 0' })}>
        <h2 className="grow cut">{item.says}</h2>
      </div>
      <p className="in-brick">■ {item.why}</p>
      <p className="quiet small" css={placed({ margin: '4px 0 10px' })}>
        came {dayTimeText(item.at, zone)} · {kb(item.size)} · <a href={`/api/v1/set-aside/${item.id}/file`}>as a file, as it came</a>
      </p>
      {typed === null ? (
        <p className="quiet">It is not text that can be mended here: open it as a file.</p>
      ) : (
        <TextArea label="As it came" rows={12} value={typed} isCode onChange={setTyped} />
      )}
      <div css={placed({ display: 'flex', gap: 8, marginTop: 10 })}>
        <Button variant="contained" disabled={busy} onClick={bring}>
          {mended ? 'Bring it as mended' : 'Bring it again'}
        </Button>
        <Button
          disabled={busy}
          onClick={() => {
            onDrop(item.id, true);
          }}
        >
          Drop it
        </Button>
      </div>
    </aside>
  );
}
