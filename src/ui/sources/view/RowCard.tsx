/** @jsxImportSource @emotion/react */
'use client';
import type { ReactNode } from 'react';
import { plural } from '../../../core/base';
import { printValue, type FactValue } from '../../../core/fields';
import { useFields } from '../../client/fields';
import { Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';
import type { PreviewRow } from '../state/preview';

/** One row as it will be: values as read, what was changed about them, and what becomes of it. */
export function RowCard({
  rows,
  at,
  onMove,
  total,
}: {
  readonly rows: readonly PreviewRow[];
  readonly at: number;
  readonly onMove: (at: number) => void;
  readonly total: number;
}) {
  const fields = useFields();
  const row = rows[at];
  if (!row) return null;
  const { person, company, note, standing } = row.reading.record;
  const values = [
    ...Object.entries(person)
      .filter(([key]) => key !== 'first_name' && key !== 'last_name')
      .map(([key, value]) => ({ id: `person.${key}`, field: fields.of('person', key), value })),
    ...Object.entries(company).map(([key, value]) => ({ id: `company.${key}`, field: fields.of('company', key), value })),
    ...(['deal', 'application'] as const).flatMap((kind) =>
      Object.entries(standing[kind]?.values ?? {}).map(([key, value]) => ({ id: `${kind}.${key}`, field: fields.of(kind, key), value })),
    ),
  ];
  const tone = { new: 'river', known: 'river', perhaps: 'brass', refused: 'brick' } as const;
  return (
    <section aria-label="Row as it will be">
      <div css={placed({ display: 'flex', alignItems: 'center', gap: 8, margin: '14px 0 6px' })}>
        <h2 className="grow">Row {row.row} as it will be</h2>
        <button
          className="linkish"
          disabled={at === 0}
          onClick={() => {
            onMove(at - 1);
          }}
          aria-label="Row before"
        >
          ‹
        </button>
        <span className="quiet small">{rows.length === total ? `${row.row} of ${total}` : `${at + 1} of ${rows.length}`}</span>
        <button
          className="linkish"
          disabled={at >= rows.length - 1}
          onClick={() => {
            onMove(at + 1);
          }}
          aria-label="Next row"
        >
          ›
        </button>
      </div>
      <div css={placed({ padding: '4px 0 8px' })}>
        <Tag tone={tone[row.plan.kind]}>{row.plan.kind === 'perhaps' ? 'perhaps known' : row.plan.kind}</Tag>{' '}
        <span className="quiet small">
          {row.plan.why}
          {row.plan.kind === 'known' && row.plan.otherName ? ` · ${row.plan.otherName}` : ''}
          {row.plan.kind === 'known'
            ? ` · ${row.changes.length === 0 ? 'changes nothing' : `changes ${plural(row.changes.length, 'value')}`}`
            : ''}
        </span>
      </div>
      {values.map(({ id, field, value }) => {
        const shown = printValue(value, field?.unit);
        const change = row.changes.find((entry) => entry.field === id);
        const raw = row.cells.find((cell) => cell.trim() !== '' && cell.trim() !== String(value) && looksLike(cell, value));
        return (
          <Line key={id} label={field?.label ?? id}>
            {raw ? <s className="quiet">{raw.trim().replace(/\s+/g, ' ').slice(0, 40)}</s> : null} <span className="strong">{shown}</span>
            {change ? <span className="small in-brass"> was {printValue(change.from, field?.unit)}</span> : null}
          </Line>
        );
      })}
      {(['deal', 'application'] as const).map((kind) =>
        row.standing[kind] ? (
          <Line key={kind} label={kind}>
            {row.standing[kind].says}
          </Line>
        ) : null,
      )}
      {note ? <Line label="note">“{note}”</Line> : null}
      {row.reading.remarks.map((remark) => (
        <p key={remark.target} className="small in-brass" css={placed({ padding: '4px 0' })}>
          {remark.says}
        </p>
      ))}
    </section>
  );
}

function Line({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <div css={placed({ display: 'flex', gap: 8, padding: '4px 0', borderTop: '1px solid var(--line)' })}>
      <span className="quiet" css={placed({ width: 104, flex: 'none' })}>
        {label}
      </span>
      <span className="grow" css={placed({ overflowWrap: 'anywhere' })}>
        {children}
      </span>
    </div>
  );
}

/** Whether a cell is where a value came from though it is written otherwise: same digits, or same letters. */
function looksLike(cell: string, value: FactValue): boolean {
  const bare = (text: string): string =>
    text
      .toLowerCase()
      .replace(/^https?:\/\//, '')
      .replace(/[^\p{L}\d]/gu, '');
  const [a, b] = [bare(cell), bare(String(value))];
  if (typeof value === 'number')
    return (
      /^\d[\d.,]*\s*(ha|m2|m²)?$/i.test(cell.trim()) && (a.startsWith(b.slice(0, 2)) || Number(cell.replace(',', '.')) / 10_000 === value)
    );
  if (b === '' || a === '') return false;
  if (/^\+?\d+$/.test(String(value)))
    return a.length > 6 && b.endsWith(a.replace(/^0+/, '').slice(-6)) && /^[\d ()+/.-]+$/.test(cell.trim());
  return (
    a === b ||
    (a.length > 4 && (b.includes(a) || a.includes(b)) && Math.abs(a.length - b.length) < 9) ||
    [...a].sort().join('') === [...b].sort().join('')
  );
}
