import Link from '../../kit/Link';
import { plural } from '../../../core/base';
import { call } from '../../client';
import type { FirstView } from '../state/types';
import { Body, Deeds, type DecisionProps } from './parts';

/** How the first ones of a release fared, and whether the others may follow. */
export function OpenFirst({ first, decide, mayDealWithTrips }: DecisionProps & { readonly first: FirstView }) {
  return (
    <Body>
      <p>
        Of the first {first.firstN}: {first.done} done, {first.stopped} stopped, {first.open} under way
        {first.stuck > 0 ? (
          <>
            , <span className="in-brick">{first.stuck} stuck</span>
          </>
        ) : null}
        . {plural(first.held, 'record waits', 'records wait')} behind them; nothing of theirs has begun.{' '}
        <Link href={`/flows/${first.flowId}/trips`}>Look at the trips</Link>
      </p>
      <Deeds
        off={!mayDealWithTrips}
        deeds={[
          {
            key: 'a',
            label: `Let the other ${first.held} go on`,
            main: true,
            run: () => {
              decide(call('letReleaseGoOn', { params: { id: first.versionId }, body: {} }));
            },
          },
        ]}
      />
    </Body>
  );
}
