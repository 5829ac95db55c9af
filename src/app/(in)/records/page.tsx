import { liveFlows } from '../../../server/usecases/flows';
import { companies, counts, people } from '../../../server/usecases/records';
import { Records } from '../../../ui/records/view/Records';
import { orNotFound } from '../../not-found-or';
import { signed } from '../../session';

interface Props {
  readonly searchParams: Promise<{ kind?: string; search?: string; cursor?: string }>;
}

export const metadata = { title: 'Records' };

export default async function RecordsPage({ searchParams }: Props) {
  const { world, may } = await signed();
  const { kind, search, cursor } = await searchParams;
  const ask = { search, cursor };
  const [total, live, now] = await Promise.all([counts(world), liveFlows(world), world.clock.now()]);
  const list =
    kind === 'companies'
      ? { kind: 'companies' as const, ...(await orNotFound(companies(world, ask))) }
      : { kind: 'people' as const, ...(await orNotFound(people(world, ask))) };
  return (
    <Records
      key={list.kind}
      list={list}
      next={list.next}
      search={search ?? ''}
      counts={total}
      flows={live}
      now={now}
      mayStart={may('release')}
    />
  );
}
