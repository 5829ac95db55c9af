import { indentLine, moveLine, removeLine, switchLine } from '../../../core/flow/edit';
import type { Editing, LineRow } from '../state/script';

interface Props {
  readonly row: LineRow;
  readonly text: string;
  readonly onEditing: (editing: Editing) => void;
  readonly onChange: (text: string) => void;
}

/** What can be done with the chosen line; each has its key. What would change nothing here is not offered. */
export function RowDeeds({ row, text, onEditing, onChange }: Props) {
  const { mark } = row;
  const deeds: readonly {
    readonly glyph: string;
    readonly label: string;
    readonly keys: string;
    readonly to?: string;
    readonly act?: () => void;
  }[] = [
    { glyph: '✎', label: 'Edit this line', keys: 'Enter', act: () => onEditing({ kind: 'line', mark }) },
    { glyph: '+', label: 'Type a line below', keys: 'N', act: () => onEditing({ kind: 'below', mark }) },
    { glyph: '↑', label: 'Move up', keys: 'Alt ↑', to: moveLine(text, mark, -1) },
    { glyph: '↓', label: 'Move down', keys: 'Alt ↓', to: moveLine(text, mark, 1) },
    { glyph: '→', label: 'Into the arm above', keys: 'Tab', to: indentLine(text, mark, 1) },
    { glyph: '←', label: 'Out of its arm', keys: 'Shift Tab', to: indentLine(text, mark, -1) },
    { glyph: row.line.off ? '◉' : '◌', label: row.line.off ? 'Switch on' : 'Switch off', keys: 'O', to: switchLine(text, mark) },
    { glyph: '✕', label: 'Delete this line', keys: 'Delete', to: removeLine(text, mark) },
  ];
  return (
    <span className="deeds">
      {deeds
        .filter((deed) => deed.act ?? deed.to !== text)
        .map((deed) => (
          <button
            key={deed.glyph}
            title={`${deed.label} (${deed.keys})`}
            aria-label={deed.label}
            onClick={() => {
              if (deed.to !== undefined) onChange(deed.to);
              deed.act?.();
            }}
          >
            {deed.glyph}
          </button>
        ))}
    </span>
  );
}
