/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ProviderView } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { agoText } from '../../kit/format';
import { Empty, Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { NEW_PROVIDER } from '../state/provider';
import { ConnectionForm } from './ConnectionForm';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: readonly ProviderView[];
  readonly now: number;
  readonly mayChange: boolean;
}

/** Lookup services described by data: how they are asked, where their answer stands, what asks them, how the last try went. */
export function Connections({ index, first, now, mayChange }: Props) {
  const router = useRouter();
  const [items, setItems] = useState(first);
  const [chosen, setChosen] = useState<string | null>(first[0]?.provider.name ?? null);
  const { busy, said, hush, ask } = useAsk();
  const view = items.find((item) => item.provider.name === chosen);
  const took = (next: { readonly items: readonly ProviderView[] }): void => {
    setItems(next.items);
    router.refresh();
  };
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">connections</span>} said={said} onClose={hush}>
      <section className="col paper" css={placed({ flex: '0 0 260px' })} tabIndex={0} aria-label="Connections">
        {items.length === 0 ? (
          <Empty title="No connection yet">A lookup service is described once: its address, its key, and where its answer stands.</Empty>
        ) : null}
        {items.map(({ provider, usedBy, checked }) => (
          <button
            key={provider.name}
            className={`settings-pick${provider.name === chosen ? ' on' : ''}`}
            aria-pressed={provider.name === chosen}
            onClick={() => {
              setChosen(provider.name);
            }}
          >
            <span className="strong">{provider.name}</span>{' '}
            {checked ? <Tag tone={checked.ok ? 'moss' : 'brick'}>{checked.ok ? '✓ answers' : '✕ fails'}</Tag> : null}
            <span className="quiet small">
              {usedBy.length === 0 ? 'no chain asks it' : `asked by ${usedBy.join(', ')}`}
              {checked ? ` · tried ${agoText(checked.at, now)}` : ''}
            </span>
          </button>
        ))}
        {mayChange ? (
          <p css={placed({ padding: '10px 16px' })}>
            <Button
              onClick={() => {
                setChosen(null);
              }}
            >
              Describe another
            </Button>
          </p>
        ) : null}
      </section>
      <ConnectionForm
        key={chosen ?? 'new'}
        first={view?.provider ?? NEW_PROVIDER}
        isNew={view === undefined}
        hasSecret={view?.hasSecret ?? false}
        busy={busy}
        mayChange={mayChange}
        onKeep={(provider, secret) => {
          ask(
            call('keepProvider', { body: { provider, ...(secret !== undefined && { secret }) } }),
            `${provider.name} is kept.`,
            (next) => {
              took(next);
              setChosen(provider.name);
            },
          );
        }}
        onRemove={
          view && view.usedBy.length === 0
            ? () => {
                ask(call('removeProvider', { body: { name: view.provider.name } }), `${view.provider.name} is removed.`, (next) => {
                  took(next);
                  setChosen(next.items[0]?.provider.name ?? null);
                });
              }
            : undefined
        }
      />
    </SettingsFrame>
  );
}
