/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { ProviderTrial } from '../../../api';
import { SLOTS, type Provider } from '../../../core/lookup';
import { call, sayProblem } from '../../client';
import { placed } from '../../kit/placed';
import { TextArea } from '../../kit/TextArea';
import { headersIn, headersText, mayTry, placesOf, problemsIn } from '../state/provider';

interface Props {
  readonly first: Provider;
  readonly isNew: boolean;
  readonly hasSecret: boolean;
  readonly busy: boolean;
  readonly mayChange: boolean;
  readonly onKeep: (provider: Provider, secret: string | undefined) => void;
  readonly onRemove: (() => void) | undefined;
}

/** One lookup service: its description, a try on one person, and the value pointed at in what came back. */
export function ConnectionForm({ first, isNew, hasSecret, busy, mayChange, onKeep, onRemove }: Props) {
  const [provider, setProvider] = useState(first);
  const [secret, setSecret] = useState<string | undefined>(undefined);
  const problems = problemsIn(provider);
  const put = (change: Partial<Provider>): void => {
    setProvider({ ...provider, ...change });
  };
  const at = (part: keyof Provider) =>
    problems
      .filter((problem) => problem.at === part && !(isNew && provider[part] === first[part]))
      .map((problem) => (
        <span key={problem.says} className="small in-brick" css={placed({ display: 'block' })}>
          ■ {problem.says}
        </span>
      ));
  const line = (part: 'name' | 'url' | 'value' | 'confidence', label: string, help?: string) => (
    <div>
      <TextField
        fullWidth
        label={label}
        value={provider[part]}
        disabled={!mayChange || (part === 'name' && !isNew)}
        onChange={(event) => {
          put({ [part]: event.target.value });
        }}
      />
      {help ? <span className="quiet small">{help}</span> : null}
      {at(part)}
    </div>
  );
  return (
    <section
      className="col paper grow"
      css={placed({ padding: '14px 20px', display: 'grid', gap: 12, alignContent: 'start' })}
      tabIndex={0}
      aria-label="Description"
    >
      <h2>{isNew ? 'A new connection' : first.name}</h2>
      {line('name', 'name')}
      <div css={placed({ display: 'grid', gridTemplateColumns: '110px minmax(0, 1fr)', gap: 10 })}>
        <TextField
          select
          label="asked by"
          value={provider.method}
          disabled={!mayChange}
          onChange={(event) => {
            put({ method: event.target.value === 'POST' ? 'POST' : 'GET' });
          }}
        >
          <MenuItem value="GET">GET</MenuItem>
          <MenuItem value="POST">POST</MenuItem>
        </TextField>
        {line('url', 'address', `put in: ${SLOTS.map((slot) => `{${slot}}`).join(' ')}`)}
      </div>
      <div>
        <TextArea
          label="headers, one a line"
          shown
          rows={2}
          value={headersText(provider.headers)}
          disabled={!mayChange}
          onChange={(text) => {
            put({ headers: headersIn(text) });
          }}
        />
        {at('headers')}
      </div>
      {provider.method === 'POST' ? (
        <div>
          <TextArea
            label="body, as JSON"
            shown
            value={provider.body}
            disabled={!mayChange}
            onChange={(body) => {
              put({ body });
            }}
          />
          {at('body')}
        </div>
      ) : null}
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
      <Pointing provider={provider} secret={secret} mayTryIt={mayChange && mayTry(provider)} put={put} />
      <div css={placed({ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 10 })}>
        {line('value', 'the e-mail stands at')}
        {line('confidence', 'how sure it is stands at')}
      </div>
      {mayChange ? (
        <div css={placed({ display: 'flex', gap: 8 })}>
          <Button
            variant="contained"
            disabled={busy || problems.length > 0}
            onClick={() => {
              onKeep(provider, secret);
            }}
          >
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

/** Asks about one person, or takes an example answer, and lets the value be pointed at. */
function Pointing({
  provider,
  secret,
  mayTryIt,
  put,
}: {
  readonly provider: Provider;
  readonly secret: string | undefined;
  readonly mayTryIt: boolean;
  readonly put: (change: Partial<Provider>) => void;
}) {
  const [who, setWho] = useState('');
  const [example, setExample] = useState('');
  const [trial, setTrial] = useState<ProviderTrial | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [trying, setTrying] = useState(false);
  const tryIt = (): void => {
    setTrying(true);
    call('tryProvider', { body: { provider, who, ...(secret !== undefined && { secret }) } }).then(
      (found) => {
        setTrying(false);
        setProblem(null);
        setTrial(found);
      },
      (error: unknown) => {
        setTrying(false);
        setProblem(sayProblem(error));
      },
    );
  };
  const places = placesOf(example, trial);
  return (
    <div css={placed({ background: 'var(--w1)', padding: '10px 12px', borderRadius: 4, display: 'grid', gap: 8 })}>
      <form
        css={placed({ display: 'flex', gap: 8, alignItems: 'center' })}
        onSubmit={(event) => {
          event.preventDefault();
          tryIt();
        }}
      >
        <TextField
          label="try it on, by name"
          value={who}
          onChange={(event) => {
            setWho(event.target.value);
          }}
        />
        <Button type="submit" disabled={!mayTryIt || trying || who.trim() === ''}>
          {trying ? 'Asking …' : 'Ask once'}
        </Button>
        <span className="quiet small" role="status">
          {trial ? `${trial.person}: ${trial.says}` : 'nothing is kept of the answer; the service may charge for it'}
        </span>
      </form>
      {problem ? (
        <p className="small in-brick" role="alert">
          {problem}
        </p>
      ) : null}
      {trial === null ? (
        <TextArea label="or an example answer from its documentation" shown rows={2} value={example} onChange={setExample} />
      ) : null}
      {places.length > 0 ? (
        <table className="plain">
          <thead>
            <tr>
              <th>what came back</th>
              <th>stands at</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {places.map(({ at, value }) => (
              <tr key={at} className={at === provider.value ? 'on' : ''}>
                <td className="strong">{String(value)}</td>
                <td className="name">{at}</td>
                <td className="right">
                  <button className="linkish small" type="button" onClick={() => put({ value: at })}>
                    this is the e-mail
                  </button>{' '}
                  {typeof value === 'number' ? (
                    <button className="linkish small" type="button" onClick={() => put({ confidence: at })}>
                      this is how sure it is
                    </button>
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </div>
  );
}
