import { forms } from '../../../server/usecases/forms';
import { imports } from '../../../server/usecases/imports';
import { webhookIntakes } from '../../../server/usecases/webhook-intakes';
import { Sources } from '../../../ui/sources/view/Sources';
import { signed } from '../../session';

export const metadata = { title: 'Sources' };

export default async function SourcesPage() {
  const { world, may } = await signed();
  const [lists, shown, hooks, now] = await Promise.all([imports(world), forms(world), webhookIntakes(world), world.clock.now()]);
  return <Sources lists={lists} forms={shown} hooks={hooks} now={now} mayTakeIn={may('take in')} />;
}
