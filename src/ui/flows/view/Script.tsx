/** @jsxImportSource @emotion/react */
'use client';
import { useLayoutEffect, useMemo, useRef, useState, type ReactNode, type RefObject } from 'react';
import type { Library } from '../../../core/flow/check';
import { applyEdits, insertLineAfter, lineText, placeLine, replaceLine } from '../../../core/flow/edit';
import { stepRows } from '../../../core/flow/syntax';
import { plural } from '../../../core/base';
import { countText, euro, tookText } from '../../kit/format';
import { Tag } from '../../kit/parts';
import type { Deeds } from '../state/deeds';
import { drawRibbon } from '../state/ribbon';
import { keepOpen, partNow, type OpenPart } from '../state/meanwhile';
import {
  firstNewMark,
  type EditablePart,
  type Editing,
  type LineRow,
  type RowFigures,
  type Script as ScriptModel,
  type ScriptRow,
} from '../state/script';
import { LineEditor } from './LineEditor';
import { PartEditor } from './PartEditor';
import { RowDeeds } from './RowDeeds';
import { Sentence } from './Sentence';
import { placed } from '../../kit/placed';

const ROW_HEIGHT = 34;

interface Props {
  readonly script: ScriptModel;
  readonly text: string;
  readonly figures: ReadonlyMap<string, RowFigures>;
  readonly trial: boolean;
  readonly chosen: string | undefined;
  /** of the chosen line */
  readonly deeds: Deeds;
  readonly library: Library;
  readonly mayEdit: boolean;
  readonly editing: Editing;
  readonly onEditing: (editing: Editing) => void;
  readonly onChoose: (mark: string) => void;
  readonly onChange: (text: string) => void;
}

/** The flow as sentences with the ribbon beside them. */
export function Script(props: Props) {
  const { script, text, figures, trial, chosen, deeds, library, mayEdit, editing, onEditing, onChoose, onChange } = props;
  const [part, setPart] = useState<(OpenPart & { readonly at: { readonly top: number; readonly left: number } }) | null>(null);
  const list = useRef<HTMLOListElement>(null);
  const typed = useRef('');
  const rowsBefore = useRef(script.rows);
  // Before anything is seen of it: an editor whose line somebody took out goes on where that line stood.
  useLayoutEffect(() => {
    const kept = keepOpen(editing, rowsBefore.current, script.rows, typed.current);
    rowsBefore.current = script.rows;
    if (kept !== editing) onEditing(kept);
  }, [editing, script.rows, onEditing]);
  const ribbon = useRibbon(list, script.rows, figures, trial);
  const hasFigures = ribbon.bands.length > 0;
  const countWidth = countRoom(figures);
  const room = NUMBER_ROOM + ribbon.width + countWidth;
  const take = (typed: string): void => {
    if (editing?.kind === 'line') onChange(replaceLine(text, editing.mark, typed));
    else if (editing?.kind === 'below') {
      const next = insertLineAfter(text, editing.mark, typed);
      onChange(next);
      // The next line is typed below this one.
      const fresh = firstNewMark(text, next);
      if (fresh !== undefined) onChoose(fresh);
    }
    onEditing(null);
  };
  /** What stands above the line being typed. */
  const edited = script.rows.find((row): row is LineRow => row.kind === 'line' && row.mark === editing?.mark);
  const above = edited === undefined ? text : text.slice(0, editing?.kind === 'line' ? edited.line.from : edited.line.to);
  const editor = (initial: string, label: string): ReactNode => (
    <LineEditor
      initial={initial}
      label={label}
      library={library}
      above={above}
      gone={editing?.kind === 'below' && editing.gone === true}
      onTyped={(now) => {
        typed.current = now;
      }}
      onTake={take}
      onCancel={() => {
        onEditing(null);
      }}
    />
  );
  return (
    <div className="script">
      <div className="script-body">
        {hasFigures ? <RibbonPicture ribbon={ribbon} /> : null}
        <ol ref={list} aria-label="Lines of the flow" css={placed({ paddingLeft: 0 })}>
          {script.rows.map((row) => (
            <li key={row.mark}>
              {editing?.kind === 'line' && editing.mark === row.mark && row.kind === 'line' ? (
                <div css={placed({ marginLeft: room })}>
                  {editor(row.line.step.verb === 'split' ? lineText(text, row.mark) : editText(row), `Line ${row.number}`)}
                </div>
              ) : (
                <Row
                  row={row}
                  figures={figures.get(row.mark)}
                  showFigures={hasFigures}
                  trial={trial}
                  ribbonWidth={ribbon.width}
                  countWidth={countWidth}
                  chosen={chosen === row.mark}
                  mayEdit={mayEdit}
                  onChoose={() => {
                    onChoose(row.mark);
                  }}
                  onEditing={onEditing}
                  onPart={(was, index, anchor) => {
                    onChoose(row.mark);
                    const { bottom, left } = anchor.getBoundingClientRect();
                    setPart({ mark: row.mark, index, was, at: { top: bottom, left } });
                  }}
                  text={text}
                  deeds={deeds}
                  onChange={onChange}
                />
              )}
              {editing?.kind === 'below' && editing.mark === row.mark ? (
                <div css={placed({ marginLeft: room })}>{editor(editing.typed ?? '', 'New line')}</div>
              ) : null}
              <Findings row={row} room={room} text={text} onChange={mayEdit ? onChange : undefined} />
            </li>
          ))}
        </ol>
      </div>
      {mayEdit ? (
        <div css={placed({ marginLeft: room })}>
          {editing?.kind === 'below' && editing.mark === undefined ? (
            editor(editing.typed ?? '', 'New line')
          ) : (
            <TypeALine
              onType={() => {
                onEditing({ kind: 'below', mark: undefined });
              }}
            />
          )}
        </div>
      ) : null}
      {part ? (
        <PartEditor
          was={part.was}
          now={partNow(part, script.rows)}
          at={part.at}
          text={text}
          library={library}
          onChange={onChange}
          onClose={() => {
            setPart(null);
          }}
        />
      ) : null}
    </div>
  );
}

function TypeALine({ onType }: { readonly onType: () => void }) {
  return (
    <button className="add-line" onClick={onType}>
      + type a line: <span className="code">keep, read, score, write, wait …</span>
    </button>
  );
}

/** The ribbon beside the rows, as high as they are: findings and an open editor lengthen a row. */
function useRibbon(list: RefObject<HTMLOListElement | null>, rows: readonly ScriptRow[], figures: Props['figures'], trial: boolean) {
  const [tops, setTops] = useState<readonly number[]>(() => evenly(rows.length));
  useLayoutEffect(() => {
    const items = [...(list.current?.children ?? [])].filter((item) => item instanceof HTMLElement);
    const measured = [
      ...items.map((item) => item.offsetTop),
      items.reduce((end, item) => Math.max(end, item.offsetTop + item.offsetHeight), 0),
    ];
    if (measured.length !== tops.length || measured.some((top, i) => top !== tops[i])) setTops(measured);
  });
  return useMemo(
    () =>
      drawRibbon({
        rows: rows,
        figures,
        tops: tops.length === rows.length + 1 ? tops : evenly(rows.length),
        lineHeight: ROW_HEIGHT,
        trial,
      }),
    [rows, figures, tops, trial],
  );
}

interface FindingsProps {
  readonly row: ScriptRow;
  readonly room: number;
  readonly text: string;
  readonly onChange: ((text: string) => void) | undefined;
}
/** What the checker says of a line, each with its mend. */
function Findings({ row, room, text, onChange }: FindingsProps) {
  return (
    <>
      {row.findings.map((finding) => (
        <p
          key={`${finding.from} ${finding.message}`}
          className={`finding ${finding.severity}`}
          css={placed({ marginLeft: room + row.depth * 22 })}
        >
          <span aria-hidden>{finding.severity === 'error' ? '■' : '◆'}</span> <span className="sr">{finding.severity}: </span>
          {finding.message}
          {finding.mend && onChange ? (
            <button
              className="linkish"
              onClick={() => {
                if (finding.mend) onChange(applyEdits(text, finding.mend.edits));
              }}
            >
              {finding.mend.label}
            </button>
          ) : null}
        </p>
      ))}
    </>
  );
}

const evenly = (rows: number): readonly number[] => Array.from({ length: rows + 1 }, (_, i) => i * ROW_HEIGHT);
/** what a dragged line is known by */
const DRAGGED = 'application/x-millrace-line';
const NUMBER_ROOM = 50;
/** wide enough for the largest count: from 3 to 300,000 */
const countRoom = (figures: ReadonlyMap<string, RowFigures>): number =>
  Math.max(34, 12 + 8 * Math.max(0, ...[...figures.values()].map((entry) => entry.reached)).toLocaleString('en-GB').length);

/** The line as text, to be edited: its clauses indented below it. */
const editText = (row: LineRow): string =>
  stepRows(row.line.step)
    .map((part, i) => (i === 0 ? part : `  ${part}`))
    .join('\n');

function RibbonPicture({ ribbon }: { readonly ribbon: ReturnType<typeof drawRibbon> }) {
  return (
    <svg className="ribbon" width={ribbon.width} height={ribbon.height} css={placed({ left: NUMBER_ROOM })} aria-hidden>
      {ribbon.bands.map((band) => (
        <path key={band.key} d={band.path} fill={band.tone === 'main' ? 'var(--ribbon)' : 'var(--ribbon-aside)'} />
      ))}
      {ribbon.dots.map((dot) =>
        dot.kind === 'stuck' ? (
          <rect key={dot.key} x={dot.x - 4} y={dot.y - 4} width={8} height={8} fill="var(--brick)" />
        ) : dot.kind === 'ask' ? (
          <circle key={dot.key} cx={dot.x} cy={dot.y} r={4.5} fill="var(--paper)" stroke="var(--brass-mark)" strokeWidth={2} />
        ) : (
          <circle key={dot.key} cx={dot.x} cy={dot.y} r={3.5} fill="var(--quiet)" />
        ),
      )}
    </svg>
  );
}

interface RowProps {
  readonly row: ScriptRow;
  readonly figures: RowFigures | undefined;
  readonly showFigures: boolean;
  readonly trial: boolean;
  readonly ribbonWidth: number;
  readonly countWidth: number;
  readonly chosen: boolean;
  readonly mayEdit: boolean;
  readonly onChoose: () => void;
  readonly onEditing: (editing: Editing) => void;
  readonly onPart: (part: EditablePart, index: number, anchor: HTMLElement) => void;
  readonly text: string;
  readonly deeds: Deeds;
  readonly onChange: (text: string) => void;
}

function Row({
  row,
  figures,
  showFigures,
  trial,
  ribbonWidth,
  countWidth,
  chosen,
  mayEdit,
  onChoose,
  onEditing,
  onPart,
  text,
  deeds,
  onChange,
}: RowProps) {
  const { mark } = row;
  const [over, setOver] = useState(false);
  /** Lines are dragged by their number; dropped on a line they stand below it, on an arm first in it. */
  const drag = mayEdit && row.kind === 'line' ? { draggable: true, title: 'Drag to another place' } : {};
  return (
    <div
      className={`row ${chosen ? 'on' : ''} ${row.kind} ${over ? 'over' : ''}`}
      onDragOver={(event) => {
        if (!mayEdit || !event.dataTransfer.types.includes(DRAGGED)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => {
        setOver(false);
      }}
      onDrop={(event) => {
        setOver(false);
        const moved = event.dataTransfer.getData(DRAGGED);
        if (!mayEdit || moved === '') return;
        event.preventDefault();
        onChange(placeLine(text, moved, row.kind === 'arm' ? { inArm: mark } : { below: mark }));
      }}
      css={placed({ height: ROW_HEIGHT })}
      aria-current={chosen ? 'true' : undefined}
      data-mark={mark}
      onClick={onChoose}
    >
      <span
        className="number quiet"
        {...drag}
        onDragStart={(event) => {
          event.dataTransfer.setData(DRAGGED, mark);
          event.dataTransfer.setData('text/plain', lineText(text, mark));
        }}
      >
        {row.kind === 'line' ? row.number : ''}
      </span>
      <span css={placed({ width: ribbonWidth, flex: 'none' })} />
      <span className={`count ${(figures?.reached ?? 0) === 0 ? 'none' : ''}`} css={placed({ width: countWidth })}>
        {showFigures ? countText(figures?.reached ?? 0) : ''}
      </span>
      <span className="says" css={placed({ paddingLeft: row.depth * 22 })}>
        <Sentence parts={row.parts} off={row.kind === 'line' && row.line.off} onPart={mayEdit ? onPart : undefined} />
        {row.kind === 'line' && row.beside !== undefined ? (
          <span
            className="quiet small"
            css={placed({ marginLeft: 8 })}
            title="Neither needs what the other finds: both begin at once, and the lines below wait for both"
          >
            at once with line {row.beside}
          </span>
        ) : null}
      </span>
      {chosen && mayEdit && row.kind === 'line' ? (
        <RowDeeds row={row} deeds={deeds} onEditing={onEditing} onChange={onChange} />
      ) : (
        <RowTags row={row} figures={figures} trial={trial} />
      )}
    </div>
  );
}

/** What matters at a line: who stopped, is asked or stuck; what it cost and how long it took. */
function RowTags({ row, figures, trial }: { readonly row: ScriptRow; readonly figures: RowFigures | undefined; readonly trial: boolean }) {
  if (!figures || figures.reached === 0 || row.kind === 'arm') return row.kind === 'line' && row.line.off ? <Tag>off</Tag> : null;
  const { by } = figures;
  const took = figures.tookMs >= 50 ? ` · ${tookText(figures.tookMs)}` : '';
  return (
    <span className="tags">
      {(by.stopped ?? 0) > 0 ? <span className="quiet small">{plural(by.stopped ?? 0, 'stops', 'stop')}</span> : null}
      {(by.retry ?? 0) > 0 ? <Tag tone="brass">↻ {countText(by.retry ?? 0)} try again</Tag> : null}
      {(by.asked ?? 0) > 0 ? (
        <Tag tone="brass">
          ○ {countText(by.asked ?? 0)} {trial ? 'would ask' : 'asked'}
        </Tag>
      ) : null}
      {(by.stuck ?? 0) > 0 ? <Tag tone="brick">■ {countText(by.stuck ?? 0)} held</Tag> : null}
      {(by.waiting ?? 0) > 0 ? <Tag tone="river">◷ {countText(by.waiting ?? 0)} under way</Tag> : null}
      {row.line.step.verb === 'read' || figures.costMicro > 0 ? (
        <span className="quiet small" title="cost of all who got here · mean time">
          {euro(figures.costMicro)}
          {took}
        </span>
      ) : null}
    </span>
  );
}
