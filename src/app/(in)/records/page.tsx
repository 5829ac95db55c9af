import { liveFlows } from '../../../server/flows/flows';
import { conditionProblem } from '../../../server/records/conditions';
import { companies, counts, countWhere, people } from '../../../server/records/records';
import { Records } from '../../../ui/records/view/Records';
import { orNotFound } from '../../not-found-or';
import { signed } from '../../session';

interface Props {
  readonly searchParams: Promise<{ kind?: string; search?: string; where?: string; cursor?: string }>;
}

export const metadata = { title: 'Records' };

export default async function RecordsPage({ searchParams }: Props) {
  const { world, may } = await signed();
  const { kind, search, where, cursor } = await searchParams;
  const about = kind === 'companies' ? 'company' : 'person';
  const problem = await conditionProblem(world.db, where, about);
  const ask = { search, cursor, where: problem === null ? where : 'false' };
  const [total, live, now, found] = await Promise.all([
    counts(world),
    liveFlows(world),
    world.clock.now(),
    where && problem === null ? countWhere(world, about, where) : null,
  ]);
  const list =
    about === 'company'
      ? { kind: 'companies' as const, ...(await orNotFound(companies(world, ask))) }
      : { kind: 'people' as const, ...(await orNotFound(people(world, ask))) };
  return (
    <Records
      key={list.kind}
      list={list}
      next={list.next}
      search={search ?? ''}
      where={where ?? ''}
      found={found}
      problem={problem}
      counts={total}
      flows={live}
      now={now}
      mayStart={may('release')}
      mayChange={may('change records')}
    />
  );
}
