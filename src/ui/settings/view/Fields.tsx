/** @jsxImportSource @emotion/react */
'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { FieldRecord, FieldsView, FieldView } from '../../../api';
import { call, sayProblem } from '../../client';
import { agoText } from '../../kit/format';
import Link from '../../kit/Link';
import { Meter, Said, TopBar, type SaidText } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { typeText } from '../../../core/fields';
import { grouped, inFlows, usesText } from '../state/fields';
import { FieldPanel } from './FieldPanel';
import { NewField } from './NewField';
import { SettingsIndex, type IndexLine } from './SettingsFrame';
import './fields.css';

const KINDS: readonly (readonly [FieldRecord, string])[] = [
  ['company', 'Companies'],
  ['person', 'People'],
  ['deal', 'Deals'],
  ['opening', 'Openings'],
  ['application', 'Applications'],
];

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: FieldsView;
  readonly make: string;
  readonly mayChange: boolean;
}

/** What the business knows of its records: every field, what uses it, how many records have it; made and changed here. */
export function Fields({ index, first, make, mayChange }: Props) {
  const router = useRouter();
  const [view, setView] = useState(first);
  const [chosen, setChosen] = useState(view.fields.find(({ field }) => !field.isStandard)?.field.key ?? view.fields[0]?.field.key ?? '');
  const [said, setSaid] = useState<SaidText | null>(null);
  const [busy, setBusy] = useState(false);
  const now = Date.now();
  const selected = view.fields.find(({ field }) => field.key === chosen);
  const done = (asked: Promise<FieldsView>, text: string, choose?: string): void => {
    setBusy(true);
    asked.then(
      (next) => {
        setBusy(false);
        setView(next);
        if (choose !== undefined) setChosen(choose);
        setSaid({ calm: true, text });
        router.refresh();
      },
      (error: unknown) => {
        setBusy(false);
        setSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  const undo = (): void => {
    if (view.undo) done(call('undoField', { body: { id: view.undo.id } }), `Taken back: ${view.undo.says}.`);
  };
  return (
    <>
      <TopBar
        path={<Link href="/settings">Settings</Link>}
        title="Fields"
        tags={
          <div className="tabs" css={placed({ alignSelf: 'flex-end' })}>
            {KINDS.map(([kind, label]) => (
              <Link key={kind} href={`/settings/fields?record=${kind}`} className={kind === view.kind ? 'on' : ''}>
                {label}
                {kind === view.kind ? ` ${view.fields.length}` : ''}
              </Link>
            ))}
          </div>
        }
      >
        {view.undo && mayChange ? (
          <span className="small quiet">
            {view.undo.by ?? 'somebody'} {view.undo.says}
            {now > view.undo.at ? `, ${agoText(view.undo.at, now)}` : ''} ·{' '}
            <button className="linkish" disabled={busy} onClick={undo}>
              take it back
            </button>
          </span>
        ) : null}
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <div className="cols">
        <SettingsIndex lines={index} />
        <section className="col paper grow" tabIndex={0} aria-label="Fields">
          <FieldTable view={view} chosen={chosen} onChoose={setChosen} />
          {mayChange ? (
            <NewField
              record={view.kind}
              label={make}
              groups={grouped(view.fields).map((group) => group.name)}
              busy={busy}
              onMake={(field) => {
                done(call('makeField', { body: field }), `${field.label} is a field now: in flows ${inFlows(field)}.`, field.key);
              }}
            />
          ) : null}
        </section>
        {selected ? (
          <FieldPanel
            key={`${selected.field.key} ${JSON.stringify(selected.field)}`}
            entry={selected}
            of={view.of}
            others={view.fields
              .filter(({ field }) => field.key !== chosen && !field.isComputed && !field.isRetired)
              .map(({ field }) => field)}
            busy={busy}
            mayChange={mayChange}
            onEdit={(edit, text) => {
              done(call('editField', { body: edit }), text);
            }}
          />
        ) : null}
      </div>
    </>
  );
}

interface TableProps {
  readonly view: FieldsView;
  readonly chosen: string;
  readonly onChoose: (key: string) => void;
}
/** Every field, by group. */
function FieldTable({ view, chosen, onChoose }: TableProps) {
  return (
    <table className="plain fields">
      <thead>
        <tr>
          <th>field</th>
          <th>in flows</th>
          <th>type, unit</th>
          <th>used by</th>
          <th className="right" title={`of ${view.of.toLocaleString('en-GB')}`}>
            filled
          </th>
        </tr>
      </thead>
      {grouped(view.fields).map((group) => (
        <tbody key={group.name}>
          <tr className="group">
            <th colSpan={5} scope="rowgroup">
              {group.name} <span className="quiet">{group.fields.length}</span>
            </th>
          </tr>
          {group.fields.map((entry) => (
            <Row
              key={entry.field.key}
              entry={entry}
              of={view.of}
              on={entry.field.key === chosen}
              onChoose={() => {
                onChoose(entry.field.key);
              }}
            />
          ))}
        </tbody>
      ))}
    </table>
  );
}

function Row({
  entry,
  of,
  on,
  onChoose,
}: {
  readonly entry: FieldView;
  readonly of: number;
  readonly on: boolean;
  readonly onChoose: () => void;
}) {
  const { field, uses, filled } = entry;
  const share = of === 0 ? 0 : filled / of;
  return (
    <tr className={on ? 'on' : field.isRetired ? 'retired' : ''} aria-selected={on} onClick={onChoose}>
      <td>
        <button className="linkish strong" onClick={onChoose}>
          {field.label}
        </button>
        {field.isRetired ? <span className="quiet small"> retired</span> : null}
      </td>
      <td className="name">{field.key}</td>
      <td>{typeText(field)}</td>
      <td className={uses.length === 0 ? 'in-brass' : 'uses-of'} title={usesText(uses)}>
        {uses.length === 0 ? 'nothing' : usesText(uses)}
      </td>
      <td className="right">
        {field.isComputed ? (
          <span className="quiet">worked out</span>
        ) : (
          <span className="filled">
            <Meter share={share} width={32} />
            <span>{Math.round(share * 100)} %</span>
          </span>
        )}
      </td>
    </tr>
  );
}
