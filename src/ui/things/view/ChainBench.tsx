/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import type { ThingView } from '../../../api';
import type { LookupChain } from '../../../core/lookup';
import Link from '../../kit/Link';
import { placed } from '../../kit/placed';
import { amountIn, microOf, moved, timesIn } from '../state/chain';
import { problemsAt } from '../state/thing';
import { useThing } from './useThing';
import { BenchFrame } from './BenchFrame';
import { At } from './ThingSide';

type Step = LookupChain['providers'][number];
interface Props {
  readonly first: ThingView;
  /** lookup services described in this workspace */
  readonly described: readonly string[];
  readonly zone: string;
  readonly mayChange: boolean;
}

/** A lookup chain: who is asked first, what an answer costs, and how much a day may. */
export function ChainBench({ first, described, zone, mayChange }: Props) {
  const state = useThing<LookupChain>(first);
  const { body: chain, trial, set } = state;
  const problems = trial?.problems ?? [];
  const put = (i: number, change: Partial<Step>): void => {
    set({ ...chain, providers: chain.providers.map((entry, k) => (k === i ? { ...entry, ...change } : entry)) });
  };
  const free = described.find((name) => !chain.providers.some((entry) => entry.name === name));
  return (
    <BenchFrame state={state} zone={zone} mayChange={mayChange} label="Lookup chain" sideLabel="Where it is used">
      <div className="head-row">
        <h2>Asked for an e-mail, in this order, until an answer is usable</h2>
      </div>
      <table className="plain chain">
        <thead>
          <tr>
            <th />
            <th>connection</th>
            <th>an answer costs, €</th>
            <th>calls a minute</th>
            <th>at the same time</th>
            <th>at most a day, €</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {chain.providers.map((_, i) => (
            <Asked
              key={i}
              chain={chain}
              at={i}
              mayChange={mayChange}
              problems={problemsAt(problems, `providers.${i}`)}
              put={(change) => {
                put(i, change);
              }}
              order={(providers) => {
                set({ ...chain, providers: [...providers] });
              }}
            />
          ))}
        </tbody>
      </table>
      <datalist id="described">
        {described.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      {mayChange ? (
        <p css={placed({ display: 'flex', gap: 12, alignItems: 'center' })}>
          <Button
            size="small"
            onClick={() => set({ ...chain, providers: [...chain.providers, { name: free ?? 'another connection', priceMicro: 0 }] })}
          >
            Ask one more
          </Button>
          <span className="quiet small">
            Connections are described under <Link href="/settings/connections">Settings → Connections</Link>. Nothing is asked or paid
            twice.
          </span>
        </p>
      ) : null}
    </BenchFrame>
  );
}

interface AskedProps {
  readonly chain: LookupChain;
  readonly at: number;
  readonly mayChange: boolean;
  readonly problems: ReturnType<typeof problemsAt>;
  readonly put: (change: Partial<Step>) => void;
  readonly order: (providers: readonly Step[]) => void;
}

/** One connection of the chain, and under it what is wrong with it. */
function Asked({ chain, at, mayChange, problems, put, order }: AskedProps) {
  const provider = chain.providers[at];
  if (provider === undefined) return null;
  const { name } = provider;
  return (
    <>
      <tr className={problems.length > 0 ? 'with-more' : undefined}>
        <td className="quiet">{at + 1}</td>
        <td className="who">
          <Field
            label={`Connection ${at + 1}`}
            value={name}
            list="described"
            disabled={!mayChange}
            onChange={(text) => {
              put({ name: text });
            }}
          />
        </td>
        <td>
          <Amount
            label={`Price of an answer of ${name}`}
            value={provider.priceMicro}
            disabled={!mayChange}
            onChange={(micro) => put({ priceMicro: micro ?? 0 })}
          />
        </td>
        <td>
          <Field
            label={`Calls a minute of ${name}`}
            value={provider.perMinute === undefined ? '' : String(provider.perMinute)}
            disabled={!mayChange}
            onChange={(text) => {
              put({ perMinute: amountIn(text) });
            }}
          />
        </td>
        <td>
          <Field
            label={`Calls at the same time of ${name}`}
            value={provider.atOnce === undefined ? '' : String(provider.atOnce)}
            disabled={!mayChange}
            onChange={(text) => {
              put({ atOnce: timesIn(text) });
            }}
          />
        </td>
        <td>
          <Amount
            label={`Most a day for ${name}`}
            value={provider.dayBudgetMicro}
            disabled={!mayChange}
            onChange={(micro) => put({ dayBudgetMicro: micro })}
          />
        </td>
        <td className="right do">
          {mayChange ? (
            <>
              <button
                className="linkish"
                disabled={at === 0}
                aria-label={`${name} earlier`}
                onClick={() => {
                  order(moved(chain.providers, at, -1));
                }}
              >
                ↑
              </button>{' '}
              <button
                className="linkish"
                disabled={at === chain.providers.length - 1}
                aria-label={`${name} later`}
                onClick={() => {
                  order(moved(chain.providers, at, 1));
                }}
              >
                ↓
              </button>{' '}
              <button
                className="linkish"
                disabled={chain.providers.length === 1}
                onClick={() => {
                  order(chain.providers.filter((_, k) => k !== at));
                }}
              >
                take out
              </button>
            </>
          ) : null}
        </td>
      </tr>
      {problems.length === 0 ? null : (
        <tr>
          <td />
          <td colSpan={6}>
            <At problems={problems} />
          </td>
        </tr>
      )}
    </>
  );
}

interface FieldProps {
  readonly label: string;
  readonly value: string;
  readonly list?: string;
  readonly disabled: boolean;
  readonly onChange: (text: string) => void;
}
function Field({ label, value, list, disabled, onChange }: FieldProps) {
  return (
    <TextField
      fullWidth
      value={value}
      disabled={disabled}
      onChange={(event) => {
        onChange(event.target.value);
      }}
      slotProps={{ htmlInput: { 'aria-label': label, ...(list !== undefined && { list }) } }}
    />
  );
}

/** An amount of money as it is typed; what is kept is what it reads. */
function Amount({
  label,
  value,
  disabled,
  onChange,
}: {
  readonly label: string;
  readonly value: number | undefined;
  readonly disabled: boolean;
  readonly onChange: (micro: number | undefined) => void;
}) {
  const kept = value === undefined ? '' : String(value / 1_000_000);
  const [typed, setTyped] = useState(kept);
  return (
    <Field
      label={label}
      value={microOf(typed) === value ? typed : kept}
      disabled={disabled}
      onChange={(text) => {
        setTyped(text);
        onChange(microOf(text));
      }}
    />
  );
}
