'use client';
import Link from '../../kit/Link';
import { ago } from '../../kit/format';
import { Empty, Tag, TopBar } from '../../kit/parts';

export interface PairItem {
  readonly id: string;
  readonly kind: 'person' | 'company';
  readonly aId: string;
  readonly bId: string;
  readonly aName: string;
  readonly bName: string;
  readonly confidence: number;
  readonly state: 'open' | 'same' | 'different';
  readonly createdAt: number;
  readonly decidedByName: string | null;
  readonly evidence: readonly { readonly field: string; readonly agrees: 'yes' | 'partly' | 'no' }[];
}

const VERDICT = { open: ['brass', '○ open'], same: ['moss', '✓ same'], different: ['plain', '≠ different'] } as const;

/** Pairs that were doubtful: open ones are decided on the desk; decided ones with who said what. */
export function Duplicates({
  open,
  decided,
  now,
}: {
  readonly open: readonly PairItem[];
  readonly decided: readonly PairItem[];
  readonly now: number;
}) {
  const all = [...open, ...decided];
  return (
    <>
      <TopBar
        title="Duplicates"
        tags={
          <span className="quiet">
            {open.length} open · {decided.filter((pair) => pair.state === 'same').length} same ·{' '}
            {decided.filter((pair) => pair.state === 'different').length} different
          </span>
        }
      >
        {open.length > 0 ? <Link href="/">decide on the desk</Link> : null}
      </TopBar>
      <div className="cols">
        <section className="col paper grow" tabIndex={0} aria-label="Overview">
          {all.length === 0 ? (
            <Empty title="No doubtful pair yet">
              A match line asks here when two records may be the same but are not surely so. Surely same ones are joined; every joining can
              be undone on the record.
            </Empty>
          ) : (
            <table className="plain">
              <thead>
                <tr>
                  <th>kind</th>
                  <th>one</th>
                  <th>other</th>
                  <th className="right">sameness</th>
                  <th>for</th>
                  <th>against</th>
                  <th>verdict</th>
                  <th className="right">asked</th>
                </tr>
              </thead>
              <tbody>
                {all.map((pair) => {
                  const href = (id: string): string => `/records/${pair.kind === 'person' ? 'people' : 'companies'}/${id}`;
                  const of = (agrees: 'yes' | 'partly' | 'no'): string =>
                    pair.evidence
                      .filter((entry) => entry.agrees === agrees)
                      .map((entry) => entry.field)
                      .join(', ');
                  const [tone, words] = VERDICT[pair.state];
                  return (
                    <tr key={pair.id}>
                      <td className="quiet">{pair.kind}</td>
                      <td>
                        <Link href={href(pair.aId)}>{pair.aName}</Link>
                      </td>
                      <td>
                        <Link href={href(pair.bId)}>{pair.bName}</Link>
                      </td>
                      <td className="right strong">{pair.confidence.toFixed(2)}</td>
                      <td>{[of('yes'), of('partly') ? `nearly ${of('partly')}` : ''].filter(Boolean).join(', ')}</td>
                      <td>{of('no')}</td>
                      <td>
                        <Tag tone={tone}>{words}</Tag> <span className="quiet small">{pair.decidedByName}</span>
                      </td>
                      <td className="right quiet">{ago(pair.createdAt, now)}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          )}
        </section>
      </div>
    </>
  );
}
