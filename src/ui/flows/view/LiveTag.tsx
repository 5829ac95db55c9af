import { dayText } from '../../kit/format';
import { Tag } from '../../kit/parts';

export interface LiveState {
  readonly no: number;
  readonly since: number;
  /** nothing of it goes on since then; null: it runs */
  readonly restsSince: number | null;
}

/** Which version of a flow is live and whether it runs or rests. */
export function LiveTag({ live, zone }: { readonly live: LiveState | null; readonly zone: string }) {
  if (live === null) return <Tag tone="brass">not live yet</Tag>;
  return (
    <>
      <Tag>
        live {live.no} since {dayText(live.since, zone)}
      </Tag>{' '}
      {live.restsSince === null ? (
        <Tag tone="moss">● runs</Tag>
      ) : (
        <Tag tone="brick" title="Nothing of it goes on and nothing is sent until somebody lets it">
          ■ rests since {dayText(live.restsSince, zone)}
        </Tag>
      )}
    </>
  );
}
