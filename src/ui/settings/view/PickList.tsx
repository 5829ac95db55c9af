/** @jsxImportSource @emotion/react */
import { Button } from '@mui/material';
import type { ReactNode } from 'react';
import { placed } from '../../kit/placed';

interface Props {
  readonly label: string;
  readonly items: readonly { readonly name: string; readonly tag: ReactNode; readonly says: string }[];
  readonly chosen: string | null;
  /** null: a new one is begun */
  readonly onChoose: (name: string | null) => void;
  readonly empty: ReactNode;
  readonly mayAdd: boolean;
}

/** What is described here, by name, to choose one or to describe another. */
export function PickList({ label, items, chosen, onChoose, empty, mayAdd }: Props) {
  return (
    <section className="col paper" css={placed({ flex: '0 0 260px' })} tabIndex={0} aria-label={label}>
      {items.length === 0 ? empty : null}
      {items.map(({ name, tag, says }) => (
        <button
          key={name}
          className={`settings-pick${name === chosen ? ' on' : ''}`}
          aria-pressed={name === chosen}
          onClick={() => {
            onChoose(name);
          }}
        >
          <span className="strong">{name}</span> {tag}
          <span className="quiet small">{says}</span>
        </button>
      ))}
      {mayAdd ? (
        <p css={placed({ padding: '10px 16px' })}>
          <Button
            onClick={() => {
              onChoose(null);
            }}
          >
            Describe another
          </Button>
        </p>
      ) : null}
    </section>
  );
}
