/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useState } from 'react';
import type { ProviderBeginnings } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { placed } from '../../kit/placed';

type Call = ProviderBeginnings['calls'][number];
interface Props {
  readonly onCall: (title: string, begun: Call) => void;
}

/** The calls of an OpenAPI document: one of them is the beginning of a description. */
export function FromDocument({ onCall }: Props) {
  const [read, setRead] = useState<ProviderBeginnings | null>(null);
  const [chosen, setChosen] = useState<Call | null>(null);
  const { busy, said, ask } = useAsk();
  const take = async (file: File): Promise<ProviderBeginnings> => call('readOpenApi', { body: { document: await file.text() } });
  return (
    <div css={placed({ background: 'var(--w1)', padding: '10px 12px', borderRadius: 4, display: 'grid', gap: 8 })}>
      <div css={placed({ display: 'flex', gap: 10, alignItems: 'center' })}>
        <Button component="label" disabled={busy}>
          {busy ? 'Reading …' : 'Begin with an OpenAPI document'}
          <input
            hidden
            type="file"
            aria-label="OpenAPI document"
            accept=".json,.yaml,.yml,application/json,application/yaml"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file) ask(take(file), null, setRead);
              event.target.value = '';
            }}
          />
        </Button>
        <span className="quiet small">
          {read ? `${read.title}: choose the call that finds somebody` : 'JSON or YAML, version 3; or describe it below'}
        </span>
      </div>
      {said ? (
        <p className="small in-brick" role="alert">
          {said.text}
        </p>
      ) : null}
      {read ? (
        <div
          css={placed({ display: 'grid', maxHeight: 180, overflow: 'auto' })}
          tabIndex={0}
          role="group"
          aria-label="Calls of the document"
        >
          {read.calls.map((entry) => (
            <button
              key={entry.label}
              type="button"
              className={`settings-pick${entry === chosen ? ' on' : ''}`}
              aria-pressed={entry === chosen}
              onClick={() => {
                setChosen(entry);
                onCall(read.title, entry);
              }}
            >
              <span className="name">{entry.label}</span> <span className="quiet small">{entry.summary}</span>
            </button>
          ))}
        </div>
      ) : null}
      {chosen?.says.map((says) => (
        <p key={says} className="small in-brass">
          ? {says}
        </p>
      ))}
    </div>
  );
}
