/** @jsxImportSource @emotion/react */
import Link from '../../kit/Link';
import { printValue } from '../../../core/fields';
import { call } from '../../client';
import { Tag } from '../../kit/parts';
import type { PairView } from '../state/types';
import { Body, Deeds, type DecisionProps } from './parts';
import { placed } from '../../kit/placed';

export function OpenPair({ pair, decide, mayDecide }: DecisionProps & { readonly pair: PairView }) {
  const say = (does: 'same' | 'different' | 'later') => () => {
    decide(call('decidePair', { params: { id: pair.id }, body: { does } }));
  };
  const fields = [...new Set(pair.facts.filter((fact) => fact.value !== null).map((fact) => fact.field))];
  const valueOf = (id: string, field: string) =>
    pair.facts.filter((fact) => fact.record.id === id && fact.field === field && fact.value !== null).at(-1);
  const evidence = new Map(
    pair.evidence.map((entry) => [entry.field.replace('e-mail', 'email').replace('site', 'website').replace('place', 'city'), entry]),
  );
  const href = (id: string): string => `/records/${pair.kind === 'person' ? 'people' : 'companies'}/${id}`;
  return (
    <Body>
      <table className="plain" css={placed({ background: 'var(--paper)', border: '1px solid var(--line)' })}>
        <thead>
          <tr>
            <th />
            <th>
              <Link href={href(pair.aId)}>{pair.aName}</Link>
            </th>
            <th>
              <Link href={href(pair.bId)}>{pair.bName}</Link>
            </th>
            <th>says</th>
          </tr>
        </thead>
        <tbody>
          {[...(pair.evidence.some((entry) => entry.field === 'company') ? ['company'] : []), ...fields].map((field) => {
            const told = evidence.get(field);
            const [a, b] = [valueOf(pair.aId, field), valueOf(pair.bId, field)];
            return (
              <tr key={field}>
                <td className="quiet">{field.replace(/_/g, ' ')}</td>
                <td>
                  {told && field === 'company' ? told.ours : printValue(a?.value)}{' '}
                  {a ? <span className="quiet small">{a.source}</span> : null}
                </td>
                <td>
                  {told && field === 'company' ? told.theirs : printValue(b?.value)}{' '}
                  {b ? <span className="quiet small">{b.source}</span> : null}
                </td>
                <td>
                  {told ? (
                    <Tag
                      tone={told.agrees === 'yes' ? 'moss' : told.agrees === 'no' ? 'brick' : 'brass'}
                      title={`${told.weight > 0 ? '+' : ''}${told.weight} bits of evidence`}
                    >
                      {told.weight > 0 ? 'for' : told.weight < 0 ? 'against' : 'neither'}
                    </Tag>
                  ) : null}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Deeds
        off={!mayDecide}
        deeds={[
          { key: 'a', label: 'Same: join them', main: true, run: say('same') },
          { key: 'x', label: 'Different', run: say('different') },
          { key: 'z', label: 'Later', run: say('later') },
        ]}
      >
        <span className="quiet small" css={placed({ alignSelf: 'center' })}>
          Joining keeps every fact of both and can be undone on the record.
        </span>
      </Deeds>
    </Body>
  );
}
