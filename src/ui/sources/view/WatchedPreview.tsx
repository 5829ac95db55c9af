'use client';
import { Tag } from '../../kit/parts';

export interface Previewed {
  readonly says: string;
  readonly becomes: string;
  readonly taken: boolean;
}

/** What lies there now, and what would become of each; nothing of it is kept. */
export function WatchedPreview({ found }: { readonly found: readonly Previewed[] }) {
  if (found.length === 0) return <p className="empty">There is nothing there now.</p>;
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>what lies there</th>
          <th>what would become of it</th>
        </tr>
      </thead>
      <tbody>
        {found.map((entry, i) => (
          <tr key={i}>
            <td>{entry.says}</td>
            <td>
              <Tag tone={entry.taken ? 'moss' : 'plain'}>{entry.taken ? '✓' : '○'}</Tag> {entry.becomes}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
