'use client';
import { Button, TextField } from '@mui/material';
import Link from 'next/link';
import { useRef, useState } from 'react';
import { call, sayProblem } from '../../client';
import { useShortcuts } from '../../kit/keys';
import { Notice, Tag, TopBar } from '../../kit/parts';
import { interval, shown, tallyOf, verdictOf, type Place, type QuestionDraft, type QuestionView } from '../state/teach';
import { Phrases } from './Phrases';
import { Places } from './Places';
import { SitesTried } from './SitesTried';
import './teach.css';

/** A question: what is known of it, a page that could answer it, and what changes on sites whose answer is known. */
export function Teach({ first, mayChange }: { readonly first: QuestionView; readonly mayChange: boolean }) {
  const [view, setView] = useState(first);
  const [kept, setKept] = useState<QuestionDraft>(first.draft);
  const [past, setPast] = useState<readonly QuestionDraft[]>([]);
  const [busy, setBusy] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const turn = useRef(0);
  const { draft, host } = view;
  const changed = JSON.stringify(draft) !== JSON.stringify(kept);
  const place = view.places[at];

  const asked = (work: Promise<QuestionView>, says: string, then?: (next: QuestionView) => void): void => {
    const mine = (turn.current += 1);
    setBusy(says);
    work.then(
      (next) => {
        // An older answer that comes late is not shown over a newer one.
        if (mine !== turn.current) return;
        setView(next);
        setBusy(null);
        setProblem(null);
        then?.(next);
      },
      (error: unknown) => {
        if (mine !== turn.current) return;
        setBusy(null);
        setProblem(sayProblem(error));
      },
    );
  };
  const tryOut = (next: QuestionDraft, on: string | null = host): void => {
    asked(call('tryQuestion', { params: { name: view.id }, body: { draft: next, host: on } }), 'reading the known sites again …');
  };
  const change = (next: QuestionDraft): void => {
    if (!mayChange) return;
    setPast([...past, draft]);
    setView({ ...view, draft: next });
    tryOut(next);
  };
  const undo = (): void => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    setView({ ...view, draft: last });
    tryOut(last);
  };
  const show = (which: Place | undefined, verdict: 'this' | 'not', reason?: string): void => {
    if (which && host !== null) change(shown(draft, host, which, verdict, reason));
  };
  const step = (by: number): void => {
    const hosts = view.sites.map((site) => site.host);
    const next = hosts[(hosts.indexOf(host ?? '') + by + hosts.length) % hosts.length];
    if (next === undefined) return;
    setAt(0);
    tryOut(draft, next);
  };
  const keep = (): void => {
    asked(call('keepQuestion', { params: { name: view.id }, body: draft }), 'keeping …', (next) => {
      setKept(next.draft);
      setPast([]);
    });
  };
  const bringBack = (): void => {
    asked(call('undoQuestion', { params: { name: view.id } }), 'bringing it back …', (next) => {
      setKept(next.draft);
      setPast([]);
    });
  };
  const readMore = async (): Promise<void> => {
    const [field, all] = [view.id, view.unread];
    for (const [i, company] of all.entries()) {
      setBusy(`reading ${company.name}, ${i + 1} of ${all.length} …`);
      try {
        await call('recheckFact', { params: { id: company.id }, body: { field } });
      } catch (error) {
        setProblem(sayProblem(error));
      }
    }
    tryOut(draft, null);
  };
  const moving = (by: number) => (view.places.length === 0 ? undefined : () => setAt((at + by + view.places.length) % view.places.length));
  useShortcuts({
    j: moving(1),
    k: moving(-1),
    y: () => show(place, 'this'),
    n: () => show(place, 'not'),
    ArrowRight: () => step(1),
    ArrowLeft: () => step(-1),
    'Ctrl+z': undo,
  });

  const examples = draft.shown.length;
  const pages = new Set(draft.shown.map((entry) => entry.host)).size;
  const now = tallyOf(view.sites, 'is');
  const [from, to] = interval(now.right, now.of);
  return (
    <>
      <TopBar
        path={<Link href="/settings">Settings</Link>}
        title={view.wording}
        tags={
          changed ? (
            <Tag tone="river">
              {examples === 0
                ? 'changed, not kept'
                : `${examples} ${examples === 1 ? 'example' : 'examples'} on ${pages} ${pages === 1 ? 'site' : 'sites'}, not kept`}
            </Tag>
          ) : null
        }
      >
        <span className="quiet small" role="status">
          {busy}
        </span>
        {mayChange ? (
          <>
            {changed || !view.mayUndo ? null : <Button onClick={bringBack}>Bring back how it was</Button>}
            <Button disabled={past.length === 0} onClick={undo} title="Ctrl Z">
              Undo
            </Button>
            <Button variant="contained" disabled={!changed || busy !== null} onClick={keep}>
              {changed ? 'Keep' : 'Kept'}
            </Button>
          </>
        ) : null}
      </TopBar>
      {problem === null ? null : <Notice onClose={() => setProblem(null)}>{problem}</Notice>}
      <div className="cols teach">
        <section className="col" aria-label="The question">
          <h2>The question</h2>
          <dl className="facts-of">
            <dt>answer</dt>
            <dd>{view.type}</dd>
            {view.options.length > 0 ? (
              <>
                <dt>one of</dt>
                <dd>
                  {view.options.length > 8
                    ? `${view.options.slice(0, 8).join(', ')} and ${view.options.length - 8} more`
                    : view.options.join(', ')}
                </dd>
              </>
            ) : null}
            <dt>goes to</dt>
            <dd className="code">company.{view.id}</dd>
            <dt>taken from</dt>
            <dd>
              <TextField
                size="small"
                value={draft.least === null ? '' : String(Math.round(draft.least * 100))}
                placeholder="60"
                disabled={!mayChange}
                slotProps={{ htmlInput: { 'aria-label': 'Least confidence in percent', inputMode: 'numeric', className: 'percent' } }}
                onChange={(event) => {
                  const percent = Number(event.target.value);
                  if (event.target.value === '') change({ ...draft, least: null });
                  else if (Number.isInteger(percent) && percent >= 0 && percent <= 100) change({ ...draft, least: percent / 100 });
                }}
              />{' '}
              % sure
            </dd>
          </dl>
          <Phrases
            title="Words it goes by"
            add="word or phrase"
            list={draft.words}
            onChange={mayChange ? (words) => change({ ...draft, words }) : undefined}
          />
          <Phrases
            title="Does not count"
            add="what else is not meant"
            list={draft.not}
            onChange={mayChange ? (not) => change({ ...draft, not }) : undefined}
          />
          <h2>Learnt from examples</h2>
          {view.learnt.length === 0 ? (
            <p className="quiet">
              {examples === 0 ? 'Nothing yet: show an answer on a page, or show a wrong one.' : 'Your examples needed no new word.'}
            </p>
          ) : (
            <ul className="learnt">
              {view.learnt.map(({ phrase, weight }) => (
                <li key={phrase}>
                  <span className={weight > 0 ? 'in-moss' : 'in-brick'}>{weight > 0 ? 'for' : 'against'}</span> <b>{phrase}</b>
                  {mayChange ? (
                    <button className="linkish" onClick={() => change({ ...draft, leftOut: [...draft.leftOut, phrase] })}>
                      leave out
                    </button>
                  ) : null}
                </li>
              ))}
            </ul>
          )}
          {draft.leftOut.length > 0 ? <p className="quiet small">left out: {draft.leftOut.join(', ')}</p> : null}
        </section>
        <section className="col paper" aria-label="A site that could answer">
          <Places
            view={view}
            at={at}
            onAt={setAt}
            onStep={step}
            verdict={(which) => (host === null ? undefined : verdictOf(draft, host, which))}
            onShow={mayChange ? show : undefined}
          />
          {view.unread.length > 0 && mayChange ? (
            <p className="more">
              {view.sites.length === 0 ? 'No site whose answer is known was read yet. ' : ''}
              <Button disabled={busy !== null} onClick={() => void readMore()}>
                Read {view.unread.length} {view.unread.length === 1 ? 'site' : 'sites'} whose answer is known
              </Button>
            </p>
          ) : null}
        </section>
        <section className="col" aria-label="Sites whose answer is known">
          <SitesTried view={view} onHost={(next) => tryOut(draft, next)} />
          {now.of === 0 ? null : (
            <p className="quiet small">
              {now.right} of {now.of} is {from}–{to} % of all sites, 19 times in 20.
            </p>
          )}
          <h2>If you keep it</h2>
          <p className="quiet">
            {view.gained} {view.gained === 1 ? 'company gains' : 'companies gain'} an answer, {view.changed}{' '}
            {view.changed === 1 ? 'changes' : 'change'}, {view.lost} {view.lost === 1 ? 'is' : 'are'} no longer found when their sites are
            read again. What was set by hand stays.
          </p>
        </section>
      </div>
    </>
  );
}
