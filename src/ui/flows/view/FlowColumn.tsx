/** @jsxImportSource @emotion/react */
'use client';
import dynamic from 'next/dynamic';
import { plural } from '../../../core/base';
import { Empty } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { RANGES } from '../state/types';
import { Script } from './Script';
import { Sheet } from './Sheet';
import type { Bench, View, WorkbenchProps } from './useWorkbench';

/** The editor of the whole text comes when somebody opens it. */
const TextView = dynamic(() => import('./TextView').then((module) => module.TextView), {
  ssr: false,
  loading: () => <p className="empty">The editor is being opened …</p>,
});
const VIEW_WORDS: Readonly<Record<View, string>> = { script: 'Script', sheet: 'Trial sheet', text: 'Text' };

interface Props extends Pick<WorkbenchProps, 'library' | 'mayEdit'> {
  readonly bench: Bench;
}

/** The flow itself: as a script with its numbers, as the sheet of its trial, or as text. */
export function FlowColumn({ bench, library, mayEdit }: Props) {
  return (
    <section
      className="col paper"
      css={placed({ flex: '1 1 604px', display: 'flex', flexDirection: 'column', overflow: 'hidden' })}
      aria-label="Flow"
    >
      <FlowColumnBar bench={bench} />
      <div css={placed({ overflow: 'auto', flex: 1, minHeight: 0 })}>
        <FlowAsSeen bench={bench} library={library} mayEdit={mayEdit} />
      </div>
    </section>
  );
}

/** Where the numbers come from, what the checker says, and how the flow is seen. */
function FlowColumnBar({ bench: { range, setRange, view, setView, errors, warnings } }: Pick<Props, 'bench'>) {
  return (
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
  );
}

function FlowAsSeen({ bench, library, mayEdit }: Props) {
  const { view, script, draft, figures, range, row, deeds, editing, setEditing, setChosen, change, trial, specimen, setSpecimen, people } =
    bench;
  if (view === 'script')
    return (
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
    );
  if (view === 'text') return <TextView text={draft.text} library={library} mayEdit={mayEdit} onChange={change} />;
  if (!trial)
    return <Empty title="No trial yet">Press T: the draft runs on {plural(people.length, 'specimen')} and nothing is sent.</Empty>;
  return (
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
  );
}
