'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ProviderView } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { agoText } from '../../kit/format';
import { Empty, Tag } from '../../kit/parts';
import { NEW_PROVIDER } from '../state/provider';
import { ConnectionForm } from './ConnectionForm';
import { PickList } from './PickList';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: readonly ProviderView[];
  readonly now: number;
  readonly mayChange: boolean;
}

const usedFor = ({ provider, usedBy }: ProviderView): string => {
  if (provider.finds === 'records') return 'asked from the directory';
  return usedBy.length === 0 ? 'no chain asks it' : `asked by ${usedBy.join(', ')}`;
};

/** Outside services described by data: how they are asked, where their answer stands, what asks them, how the last try went. */
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
      <PickList
        label="Connections"
        items={items.map((item) => ({
          name: item.provider.name,
          tag: item.checked ? <Tag tone={item.checked.ok ? 'moss' : 'brick'}>{item.checked.ok ? '✓ answers' : '✕ fails'}</Tag> : null,
          says: `${usedFor(item)}${item.checked ? ` · tried ${agoText(item.checked.at, now)}` : ''}`,
        }))}
        chosen={chosen}
        onChoose={setChosen}
        mayAdd={mayChange}
        empty={
          <Empty title="No connection yet">An outside service is described once: its address, its key, and where its answer stands.</Empty>
        }
      />
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
