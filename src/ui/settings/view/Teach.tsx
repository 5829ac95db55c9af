'use client';
import { Button } from '@mui/material';
import Link from 'next/link';
import { useShortcuts } from '../../kit/keys';
import { Notice, Tag, TopBar } from '../../kit/parts';
import { interval, tallyOf, verdictOf, type QuestionView } from '../state/teach';
import { useQuestion, type QuestionAtWork } from './useQuestion';
import { Places } from './Places';
import { QuestionKnown } from './QuestionKnown';
import { SitesTried } from './SitesTried';
import './teach.css';

const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`;

/** A question: what is known of it, a page that could answer it, and what changes on sites whose answer is known. */
export function Teach({ first, mayChange }: { readonly first: QuestionView; readonly mayChange: boolean }) {
  const work = useQuestion(first, mayChange);
  const { view, at, busy } = work;
  const { draft, host } = view;
  const place = view.places[at];
  const moving = (by: number) =>
    view.places.length === 0 ? undefined : () => work.setAt((at + by + view.places.length) % view.places.length);
  useShortcuts({
    j: moving(1),
    k: moving(-1),
    y: () => work.show(place, 'this'),
    n: () => work.show(place, 'not'),
    ArrowRight: () => work.step(1),
    ArrowLeft: () => work.step(-1),
    'Ctrl+z': work.undo,
  });
  const now = tallyOf(view.sites, 'is');
  const [from, to] = interval(now.right, now.of);
  return (
    <>
      <QuestionBar work={work} mayChange={mayChange} />
      {work.problem === null ? null : <Notice onClose={work.closeProblem}>{work.problem}</Notice>}
      <div className="cols teach">
        <QuestionKnown view={view} onChange={mayChange ? work.change : undefined} />
        <section className="col paper" aria-label="A site that could answer">
          <Places
            view={view}
            at={at}
            onAt={work.setAt}
            onStep={work.step}
            verdict={(which) => (host === null ? undefined : verdictOf(draft, host, which))}
            onShow={mayChange ? work.show : undefined}
          />
          {view.unread.length > 0 && mayChange ? (
            <p className="more">
              {view.sites.length === 0 ? 'No site was read yet. ' : ''}
              <Button disabled={busy !== null} onClick={() => void work.readMore()}>
                Read {counted(view.unread.length, 'site', 'sites')}
                {view.unread.every(({ isKnown }) => isKnown) ? ' whose answer is known' : ''}
              </Button>
            </p>
          ) : null}
        </section>
        <section className="col" aria-label="Sites whose answer is known">
          <SitesTried
            view={view}
            onHost={work.goTo}
            onCorrections={mayChange && busy === null ? () => void work.useCorrections() : undefined}
          />
          {now.of === 0 ? null : (
            <p className="quiet small">
              {now.right} of {now.of} is {from}–{to} % of all sites, 19 times in 20.
            </p>
          )}
          <h2>If you keep it</h2>
          <p className="quiet">
            {counted(view.gained, 'company gains', 'companies gain')} an answer, {counted(view.changed, 'changes', 'change')},{' '}
            {counted(view.lost, 'is', 'are')} no longer found when their sites are read again. What was set by hand stays.
          </p>
        </section>
      </div>
    </>
  );
}

function QuestionBar({ work, mayChange }: { readonly work: QuestionAtWork; readonly mayChange: boolean }) {
  const { view, busy } = work;
  const { shown } = view.draft;
  const sites = new Set(shown.map((entry) => entry.host)).size;
  return (
    <TopBar
      path={<Link href="/settings">Settings</Link>}
      title={view.wording}
      tags={
        work.isChanged ? (
          <Tag tone="river">
            {shown.length === 0
              ? 'changed, not kept'
              : `${counted(shown.length, 'example', 'examples')} on ${counted(sites, 'site', 'sites')}, not kept`}
          </Tag>
        ) : null
      }
    >
      <span className="quiet small" role="status">
        {busy}
      </span>
      {mayChange ? (
        <>
          {work.isChanged || !view.mayUndo ? null : <Button onClick={work.bringBack}>Bring back how it was</Button>}
          <Button disabled={!work.mayUndo} onClick={work.undo} title="Ctrl Z">
            Undo
          </Button>
          <Button variant="contained" disabled={!work.isChanged || busy !== null} onClick={work.keep}>
            {work.isChanged ? 'Keep' : 'Kept'}
          </Button>
        </>
      ) : null}
    </TopBar>
  );
}
