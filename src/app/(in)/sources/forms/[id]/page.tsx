import { entries, form } from '../../../../../server/intake/forms';
import { workspace } from '../../../../../server/platform/world';
import { FormPage } from '../../../../../ui/sources/view/FormPage';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Form' };

export default async function FormRoute({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const view = await orNotFound(form(world, id));
  const [sent, now, space] = await Promise.all([entries(world, id), world.clock.now(), workspace(world.db)]);
  return (
    <FormPage
      mayOpen={may('open papers')}
      key={id}
      view={view}
      entries={sent}
      now={now}
      zone={space.zone}
      from={space.name}
      publicUrl={world.publicUrl}
      mayChange={may('take in')}
    />
  );
}
