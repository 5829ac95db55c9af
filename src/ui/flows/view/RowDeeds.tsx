import type { Deeds } from '../state/deeds';
import type { Editing, LineRow } from '../state/script';

interface Props {
  readonly row: LineRow;
  readonly deeds: Deeds;
  readonly onEditing: (editing: Editing) => void;
  readonly onChange: (text: string) => void;
}

/** The buttons of the chosen line, each with its key. What would change nothing here is not offered. */
export function RowDeeds({ row, deeds, onEditing, onChange }: Props) {
  const { mark } = row;
  const to = (text: string | undefined): (() => void) | undefined => (text === undefined ? undefined : () => onChange(text));
  const buttons: readonly (readonly [glyph: string, label: string, keys: string, act: (() => void) | undefined])[] = [
    ['✎', 'Edit this line', 'Enter', () => onEditing({ kind: 'line', mark })],
    ['+', 'Type a line below', 'N', () => onEditing({ kind: 'below', mark })],
    ['↑', 'Move up', 'Alt ↑', to(deeds.up)],
    ['↓', 'Move down', 'Alt ↓', to(deeds.down)],
    ['→', 'Into the arm above', 'Tab', to(deeds.into)],
    ['←', 'Out of its arm', 'Shift Tab', to(deeds.out)],
    [row.line.off ? '◉' : '◌', row.line.off ? 'Switch on' : 'Switch off', 'O', to(deeds.flip)],
    ['✕', 'Delete this line', 'Delete', to(deeds.remove)],
  ];
  return (
    <span className="deeds">
      {buttons.map(([glyph, label, keys, act]) =>
        act ? (
          <button key={glyph} title={`${label} (${keys})`} aria-label={label} onClick={act}>
            {glyph}
          </button>
        ) : null,
      )}
    </span>
  );
}
