/** @jsxImportSource @emotion/react */
'use client';
import dynamic from 'next/dynamic';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { Library } from '../../../core/flow/check';
import { insertLineAfter, lineText } from '../../../core/flow/edit';
import { parseLines } from '../../../core/flow/syntax';
import { plural } from '../../../core/base';
import { useShortcuts } from '../../kit/keys';
import { Empty, Notice, Tag, TopBar } from '../../kit/parts';
import { deedsFor } from '../state/deeds';
import { figuresOf, readScript, type Editing } from '../state/script';
import { RANGES, type LineCount, type Range, type Trial } from '../state/types';
import { AsFile } from './AsFile';
import './flows.css';
import { LiveAtLine } from './LiveAtLine';
import { LiveTag, type LiveState } from './LiveTag';
import { NotSaved } from './NotSaved';
import { Script } from './Script';
import { Sheet } from './Sheet';
import { SpecimenPanel } from './SpecimenPanel';
import { Specimens, type SpecimenPerson } from './Specimens';
import { useDraft } from './useDraft';
import { useLineClipboard } from './useLineClipboard';
import { useTrial } from './useTrial';
import { placed } from '../../kit/placed';

/** The editor of the whole text comes when somebody opens it. */
const TextView = dynamic(() => import('./TextView').then((module) => module.TextView), {
  ssr: false,
  loading: () => <p className="empty">The editor is being opened …</p>,
});

export interface WorkbenchFlow {
  readonly id: string;
  readonly draftText: string;
  readonly draftNo: number;
  /** texts of the drafts saved so far, oldest first */
  readonly drafts: readonly string[];
  readonly live: (LiveState & { readonly text: string }) | null;
  readonly underWay: number;
}
interface Props {
  readonly flow: WorkbenchFlow;
  readonly library: Library;
  readonly trials: readonly Trial[];
  readonly people: readonly SpecimenPerson[];
  readonly live: Readonly<Record<Exclude<Range, 'trial'>, readonly LineCount[]>>;
  readonly zone: string;
  readonly userId: string;
  readonly mayEdit: boolean;
  readonly mayRelease: boolean;
}
type View = 'script' | 'sheet' | 'text';

/** The main screen: the flow as a readable script, live records beside it. */
export function Workbench({ flow, library, trials: firstTrials, people: firstPeople, live, zone, userId, mayEdit, mayRelease }: Props) {
  const router = useRouter();
  const {
    state: draft,
    send,
    saveNow,
    others,
  } = useDraft({ id: flow.id, text: flow.draftText, base: flow.draftNo, saved: flow.drafts, userId, mayEdit });
  const { trials, running, problem: trialProblem, start } = useTrial(flow.id, firstTrials);
  const [people, setPeople] = useState(firstPeople);
  const [view, setView] = useState<View>('script');
  const [range, setRange] = useState<Range>(firstTrials.length > 0 || flow.underWay === 0 ? 'trial' : 'all');
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const [specimen, setSpecimen] = useState(0);
  const [editing, setEditing] = useState<Editing>(null);
  const [limitMicro, setLimitMicro] = useState(trials[0]?.limitMicro ?? USUAL_LIMIT_MICRO);

  const script = useMemo(() => readScript(draft.text, library), [draft.text, library]);
  const trial = trials[0];
  const counts = range === 'trial' ? (trial?.lines ?? []) : live[range];
  const figures = useMemo(() => figuresOf(script.rows, counts), [script.rows, counts]);
  const row =
    script.rows.find((entry) => entry.mark === chosen) ??
    script.rows.find((entry) => entry.kind === 'line' && entry.line.step.verb === 'score') ??
    script.rows[0];
  const errors = script.findings.filter((finding) => finding.severity === 'error').length;
  const warnings = script.findings.length - errors;
  const stale = trial !== undefined && trial.text !== draft.text;

  const change = (text: string): void => {
    send({ kind: 'change', text });
  };
  const tryOut = async (afresh = false): Promise<void> => {
    setRange('trial');
    if (!(await saveNow())) return;
    await start({ recordIds: people.map((person) => person.id), limitMicro, afresh });
  };
  /** What is typed is saved first: the release page looks at the draft as it is stored. */
  const toRelease = async (): Promise<void> => {
    if (await saveNow()) router.push(`/flows/${flow.id}/release`);
  };
  const step = (by: number): void => {
    const at = script.rows.findIndex((entry) => entry.mark === row?.mark);
    setChosen(script.rows[Math.max(0, Math.min(script.rows.length - 1, at + by))]?.mark);
  };

  const line = row?.kind === 'line' ? row.mark : undefined;
  const deeds = useMemo(() => deedsFor(draft.text, mayEdit ? line : undefined), [draft.text, line, mayEdit]);
  /** A key that would change nothing keeps its usual meaning: Tab goes on to the next control. */
  const to = (text: string | undefined): (() => void) | undefined =>
    text === undefined || view !== 'script' ? undefined : () => change(text);
  useLineClipboard({
    copied: () => (view === 'script' && line !== undefined ? lineText(draft.text, line) : ''),
    onCut: to(deeds.remove),
    onPaste:
      mayEdit && view === 'script'
        ? (raw) => {
            const pasted = raw.replace(/\r\n?/g, '\n');
            const { tree, problems } = parseLines(pasted);
            if (problems.length === 0 && tree.lines.length > 0 && tree.lines.every((entry) => entry.step.verb !== 'unknown'))
              change(insertLineAfter(draft.text, row?.mark, pasted));
            else setEditing({ kind: 'below', mark: row?.mark, typed: pasted.trim() });
          }
        : undefined,
  });
  useShortcuts({
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    '[': () => setSpecimen(Math.max(0, specimen - 1)),
    ']': () => setSpecimen(Math.min((trial?.trips.length ?? 1) - 1, specimen + 1)),
    'Alt+ArrowDown': to(deeds.down),
    'Alt+ArrowUp': to(deeds.up),
    o: to(deeds.flip),
    'Ctrl+z': mayEdit && (() => send({ kind: 'undo' })),
    'Ctrl+y': mayEdit && (() => send({ kind: 'redo' })),
    t: mayEdit && (() => void tryOut()),
    T: mayEdit && (() => void tryOut(true)),
    n: mayEdit && view === 'script' && (() => setEditing({ kind: 'below', mark: row?.mark })),
    Tab: to(deeds.into),
    'Shift+Tab': to(deeds.out),
    Delete: to(deeds.remove),
    Enter: view === 'script' && mayEdit && line !== undefined && (() => setEditing({ kind: 'line', mark: line })),
  });

  return (
    <>
      <TopBar
        path={<Link href="/flows">Flows</Link>}
        title={script.name}
        tags={
          <>
            <Tag tone="river" title={SAVE_WORDS[draft.save]}>
              draft · {SAVE_WORDS[draft.save]}
            </Tag>
            <LiveTag live={flow.live} zone={zone} />
            <span role="status">
              {draft.theirs ? (
                <Tag tone="river">
                  ● {draft.theirs.name} changed {plural(draft.theirs.rows, 'line')} just now
                </Tag>
              ) : others.length > 0 ? (
                <Tag tone="river">● {others.join(', ')} here too</Tag>
              ) : null}
            </span>
          </>
        }
      >
        <AsFile flowId={flow.id} />
        <Specimens
          flowId={flow.id}
          people={people}
          about={script.parsed.tree.about?.text === 'deal' ? 'deal' : 'person'}
          onChange={setPeople}
          limitMicro={limitMicro}
          onLimit={setLimitMicro}
        />
        <Button
          disabled={!mayEdit || running || errors > 0}
          onClick={() => void tryOut()}
          title="Runs the draft on the specimens; nothing is sent and nothing is written on a record"
        >
          {running ? 'Trying …' : 'Try'} <kbd aria-hidden>T</kbd>
        </Button>
        <Button variant="contained" disabled={!mayRelease} onClick={() => void toRelease()}>
          Release …
        </Button>
      </TopBar>
      <NotSaved flowId={flow.id} draft={draft} send={send} saveNow={saveNow} />
      {trialProblem ? <Notice>{trialProblem}</Notice> : null}
      <div className="cols">
        <section
          className="col paper"
          css={placed({ flex: '1 1 604px', display: 'flex', flexDirection: 'column', overflow: 'hidden' })}
          aria-label="Flow"
        >
          <div className="bar ruled" css={placed({ padding: '0 12px 0 16px', background: 'var(--ground)', flex: 'none' })}>
            <div className="tabs" role="group" aria-label="Where the numbers come from">
              {RANGES.map((entry) => (
                <button
                  key={entry.range}
                  className={range === entry.range ? 'on' : ''}
                  aria-pressed={range === entry.range}
                  onClick={() => {
                    setRange(entry.range);
                  }}
                >
                  {entry.label}
                </button>
              ))}
            </div>
            <span className="grow" />
            {errors > 0 ? <span className="in-brick">■ {plural(errors, 'problem')}</span> : null}
            {warnings > 0 ? <span className="in-brass">◆ {plural(warnings, 'warning')}</span> : null}
            <div className="tabs" role="group" aria-label="View">
              {(['script', 'sheet', 'text'] as const).map((entry) => (
                <button
                  key={entry}
                  className={view === entry ? 'on' : ''}
                  aria-pressed={view === entry}
                  onClick={() => {
                    setView(entry);
                  }}
                >
                  {VIEW_WORDS[entry]}
                </button>
              ))}
            </div>
          </div>
          <div css={placed({ overflow: 'auto', flex: 1, minHeight: 0 })}>
            {view === 'script' ? (
              <Script
                script={script}
                text={draft.text}
                figures={figures}
                trial={range === 'trial'}
                chosen={row?.mark}
                deeds={deeds}
                library={library}
                mayEdit={mayEdit}
                editing={editing}
                onEditing={setEditing}
                onChoose={setChosen}
                onChange={change}
              />
            ) : view === 'text' ? (
              <TextView text={draft.text} library={library} mayEdit={mayEdit} onChange={change} />
            ) : trial ? (
              <Sheet
                rows={script.rows}
                trial={trial}
                at={specimen}
                mark={row?.mark}
                onChoose={(at, mark) => {
                  setSpecimen(at);
                  setChosen(mark);
                }}
              />
            ) : (
              <Empty title="No trial yet">Press T: the draft runs on {plural(people.length, 'specimen')} and nothing is sent.</Empty>
            )}
          </div>
        </section>
        <aside className="col" css={placed({ flex: '0 1 500px', minWidth: 400 })} aria-label="Records">
          {range !== 'trial' ? (
            <LiveAtLine flowId={flow.id} row={row} figures={row ? figures.get(row.mark) : undefined} />
          ) : trial ? (
            <SpecimenPanel
              row={row}
              trial={trial}
              before={trials[1]}
              at={Math.min(specimen, Math.max(0, trial.trips.length - 1))}
              onMove={setSpecimen}
              stale={stale}
              mayTry={mayEdit && !running && errors === 0}
              onAfresh={() => void tryOut(true)}
            />
          ) : (
            <Empty
              title={`Try it on ${plural(people.length, 'record')}`}
              action={
                <Button
                  variant="contained"
                  disabled={!mayEdit || running || errors > 0 || people.length === 0}
                  onClick={() => void tryOut()}
                >
                  {running ? 'Trying …' : 'Try now'}
                </Button>
              }
            >
              The draft runs on{' '}
              {people
                .slice(0, 3)
                .map((person) => person.name)
                .join(', ')}
              {people.length > 3 ? ' and others' : ''}. Nothing is sent, nothing is written on a record. Then every line shows what went in
              and what came out.
            </Empty>
          )}
        </aside>
      </div>
    </>
  );
}

/** What a trial's lookups may cost until somebody says otherwise. */
const USUAL_LIMIT_MICRO = 2_000_000;
const SAVE_WORDS = { saved: 'saved', changed: 'saving …', saving: 'saving …', conflict: 'not saved', failed: 'not saved' } as const;
const VIEW_WORDS: Readonly<Record<View, string>> = { script: 'Script', sheet: 'Trial sheet', text: 'Text' };
