'use client';
import type { ExampleView, FirstDayGap, FirstDayShape } from '../../../api';
import { Example } from '../../client/Example';
import Link from '../../kit/Link';
import { Tag } from '../../kit/parts';

/** What can be done with the workspace now; what cannot yet leads to the gap it waits for. */
export function Possible({
  possible,
  example,
  mayErase,
  onGap,
}: {
  readonly example: ExampleView;
  readonly mayErase: boolean;
  readonly possible: FirstDayShape['possible'];
  readonly onGap: (gap: FirstDayGap) => void;
}) {
  const now = possible.filter((entry) => entry.isPossible).length;
  return (
    <aside className="col letter-possible" aria-label="What you can do now">
      <div className="bar">
        <h2 className="grow">What you can do now</h2>
        <span className="quiet">
          {now} of {possible.length} · grows with the letter
        </span>
      </div>
      <ul>
        {possible.map((entry) => (
          <li key={entry.id}>
            <span className="grow">
              <span className="strong">{entry.title}</span>
              <span className="quiet small">{entry.says}</span>
            </span>
            {entry.isPossible ? (
              <span className="letter-can">
                <Tag tone="moss">✓ possible</Tag>
                <Link href={entry.href} className="small">
                  open
                </Link>
              </span>
            ) : (
              <button
                type="button"
                className="linkish"
                onClick={() => {
                  onGap(entry.gap);
                }}
              >
                ○ needs {entry.needs}
              </button>
            )}
          </li>
        ))}
      </ul>
      <h2>Or begin otherwise</h2>
      <p>
        <Link href="/flows/from-file" className="strong">
          Bring it from a file
        </Link>
        <span className="quiet small">a flow with all it names, from another workspace; what it would make is shown first</span>
      </p>
      <h2>Look round in an example</h2>
      <Example first={example} mayChange={mayErase} />
    </aside>
  );
}
