/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { ProviderTrial } from '../../../api';
import type { Provider } from '../../../core/lookup';
import { placed } from '../../kit/placed';
import { begunWith, mayTry, placesOf, problemsIn } from '../state/provider';
import { AskedBy, Line, WhenItAnswers, WhereItStands, type PartProps } from './ConnectionParts';
import { FromDocument } from './FromDocument';
import { Pointing } from './Pointing';

interface Props {
  readonly first: Provider;
  readonly isNew: boolean;
  readonly hasSecret: boolean;
  readonly busy: boolean;
  readonly mayChange: boolean;
  readonly onKeep: (provider: Provider, secret: string | undefined) => void;
  readonly onRemove: (() => void) | undefined;
}

/** One outside service: how it is asked, a try, and the values pointed at in what came back. */
export function ConnectionForm({ first, isNew, hasSecret, busy, mayChange, onKeep, onRemove }: Props) {
  const [provider, setProvider] = useState(first);
  const [secret, setSecret] = useState<string | undefined>(undefined);
  const [example, setExample] = useState('');
  const [trial, setTrial] = useState<ProviderTrial | null>(null);
  const problems = problemsIn(provider);
  const put = (change: Partial<Provider>): void => {
    setProvider({ ...provider, ...change });
  };
  const part: PartProps = { provider, first, isNew, mayChange, problems, put };
  const keep = (): void => {
    onKeep(provider, secret);
  };
  return (
    <section
      className="col paper grow"
      css={placed({ padding: '14px 20px', display: 'grid', gap: 12, alignContent: 'start' })}
      tabIndex={0}
      aria-label="Description"
    >
      <h2>{isNew ? 'A new connection' : first.name}</h2>
      {isNew && mayChange ? (
        <FromDocument
          onCall={(title, begun) => {
            setProvider(begunWith(provider, title, begun));
            setExample(begun.example);
          }}
        />
      ) : null}
      <div css={placed({ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)', gap: 10 })}>
        <Line {...part} part="name" label="name" />
        <TextField
          select
          label="it finds"
          value={provider.finds}
          disabled={!mayChange}
          onChange={(event) => {
            put({ finds: event.target.value === 'records' ? 'records' : 'value' });
          }}
        >
          <MenuItem value="value">an e-mail of one person, for lookup chains</MenuItem>
          <MenuItem value="records">people or companies, for the directory</MenuItem>
        </TextField>
      </div>
      <AskedBy {...part} />
      <TextField
        type="password"
        label={hasSecret ? 'key (one is kept; type to change it)' : 'key, for {secret}'}
        autoComplete="off"
        value={secret ?? ''}
        disabled={!mayChange}
        onChange={(event) => {
          setSecret(event.target.value);
        }}
      />
      <WhenItAnswers {...part} />
      <Pointing
        provider={provider}
        secret={secret}
        mayTryIt={mayChange && mayTry(provider)}
        example={example}
        onExample={setExample}
        trial={trial}
        onTrial={setTrial}
        places={placesOf(example, trial)}
        onPoint={setProvider}
      />
      <WhereItStands {...part} />
      {mayChange ? (
        <div css={placed({ display: 'flex', gap: 8 })}>
          <Button variant="contained" disabled={busy || problems.length > 0} onClick={keep}>
            Keep
          </Button>
          {onRemove ? (
            <Button disabled={busy} onClick={onRemove}>
              Remove
            </Button>
          ) : null}
        </div>
      ) : (
        <p className="quiet small">Only an owner keeps keys and changes connections.</p>
      )}
    </section>
  );
}
