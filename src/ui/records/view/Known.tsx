/** @jsxImportSource @emotion/react */
'use client';
import { Tooltip } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { SOURCE_LABELS, type Fact } from '../../../core/facts';
import { printValue } from '../../../core/fields';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { useFields } from '../../client/fields';
import { ago, pageText } from '../../kit/format';
import { factGroups, sureness } from '../state/group';
import type { KnownField, KnownOf } from '../state/types';
import { placed } from '../../kit/placed';
import { EditValue } from './EditValue';
import { NotKnown } from './NotKnown';
import './records.css';

interface Props {
  readonly known: readonly KnownField[];
  /** the records it is known of: what is not known of them yet can be set as well */
  readonly of: readonly KnownOf[];
  readonly now: number;
  readonly mayChange: boolean;
}

/** Every value with its source, age and confidence; competing values below it; edited by hand in place. */
export function Known({ known, of, now, mayChange }: Props) {
  const fields = useFields();
  const disputed = known.filter((field) => field.others.length > 0).length;
  const facts = known.filter((field) => field.fact?.value != null).length;
  return (
    <>
      <div className="bar">
        <h2 className="grow">What we know</h2>
        <span className="quiet">
          {plural(facts, 'value')}
          {disputed > 0 ? <span className="in-brass"> · {disputed} disputed</span> : null}
        </span>
      </div>
      {factGroups(known, fields).map((group) => (
        <section key={group.name} aria-label={group.name}>
          <h3 className="group-head">{group.name}</h3>
          {group.fields.map((field) => (
            <FieldRow key={`${field.recordId} ${field.key}`} field={field} now={now} mayChange={mayChange} />
          ))}
        </section>
      ))}
      {mayChange ? <NotKnown known={known} of={of} /> : null}
    </>
  );
}

function sourceOf(fact: Fact): string {
  return fact.url && fact.source !== 'document' ? pageText(fact.url) : `${SOURCE_LABELS[fact.source]} · ${fact.sourceRef}`;
}

function FieldRow({ field, now, mayChange }: { readonly field: KnownField; readonly now: number; readonly mayChange: boolean }) {
  const [open, setOpen] = useState(false);
  const [editing, setEditing] = useState(false);
  const { fact } = field;
  const unit = field.unit ?? undefined;
  const nothing = fact?.value == null;
  return (
    <div className="fact">
      <span className="quiet">{field.label}</span>
      <div>
        {editing ? (
          <EditValue
            field={field}
            onDone={() => {
              setEditing(false);
            }}
          />
        ) : (
          <button
            className="value"
            disabled={!mayChange}
            title={mayChange ? 'Change by hand' : undefined}
            onClick={() => {
              setEditing(true);
            }}
          >
            {printValue(fact?.value, unit)}
            {field.isStale ? <span className="in-brass small"> old</span> : null}
          </button>
        )}
        {nothing && fact ? <div className="small in-brass">looked for, not found: {sourceOf(fact)}</div> : null}
        {open && fact ? (
          <div className="small quiet" css={placed({ padding: '2px 0 4px' })}>
            {fact.quote ? (
              <div className="quote" css={placed({ color: 'var(--ink)' })}>
                “{fact.quote}”
              </div>
            ) : null}
            <div css={placed({ overflowWrap: 'anywhere' })}>
              {sourceOf(fact)} · {sureness(fact.confidence)}
            </div>
            {mayChange && field.record === 'company' ? <CheckAgain field={field} /> : null}
          </div>
        ) : null}
        {field.others.slice(0, open ? 20 : 1).map((other) => (
          <div key={other.id} className="small quiet">
            {printValue(other.value, unit)} · {SOURCE_LABELS[other.source]}, {ago(other.observedAt, now)} · not chosen
          </div>
        ))}
      </div>
      {fact ? (
        <Tooltip title={`${sourceOf(fact)} · ${sureness(fact.confidence)} (${Math.round(fact.confidence * 100)} %)`}>
          <button
            className="source"
            aria-expanded={open}
            aria-label={`Source of ${field.label}: ${SOURCE_LABELS[fact.source]}, ${sureness(fact.confidence)}`}
            onClick={() => {
              setOpen(!open);
            }}
          >
            <span>{SOURCE_LABELS[fact.source]}</span> <span className="quiet">{ago(fact.observedAt, now)}</span>
            <span className="meter" css={placed({ width: 22 })} aria-hidden>
              <i css={placed({ width: `${Math.round(fact.confidence * 100)}%` })} />
            </span>
          </button>
        </Tooltip>
      ) : (
        <span />
      )}
    </div>
  );
}

/** Reads their site once more for this one value. */
function CheckAgain({ field }: { readonly field: KnownField }) {
  const router = useRouter();
  const [says, setSays] = useState<string | null>(null);
  const check = (): void => {
    setSays('reading their site …');
    call('recheckFact', { params: { id: field.recordId }, body: { field: field.key } }).then(
      (answer) => {
        setSays(answer.says);
        router.refresh();
      },
      (error: unknown) => {
        setSays(sayProblem(error));
      },
    );
  };
  return (
    <div>
      <button className="linkish" onClick={check}>
        check at their site now
      </button>{' '}
      <span role="status">{says}</span>
    </div>
  );
}
