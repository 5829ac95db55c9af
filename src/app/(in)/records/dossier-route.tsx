import { dossierPage } from '../../../server/research/dossiers';
import { workspace } from '../../../server/platform/world';
import { DossierPage } from '../../../ui/records/view/DossierPage';
import { orNotFound } from '../../not-found-or';
import { signed } from '../../session';

interface Props {
  readonly params: Promise<{ id: string }>;
}

/** The page of a record's dossiers. */
export function dossierRoute(kind: 'person' | 'company') {
  return async function DossierRoute({ params }: Props) {
    const { world, user, may } = await signed();
    const { id } = await params;
    const page = await orNotFound(dossierPage(world, kind, id));
    const [now, space] = await Promise.all([world.clock.now(), workspace(world.db)]);
    return (
      <DossierPage
        key={id}
        kind={kind}
        id={id}
        {...page}
        now={now}
        zone={space.zone}
        myAddress={user.email}
        mayAsk={may('change records')}
      />
    );
  };
}
