import { invitation } from '../../../server/access/people-here';
import { workspace } from '../../../server/platform/world';
import { webWorld } from '../../../server/wire/web';
import { Join } from '../../../ui/session/view/Join';
import { toldAway } from '../../session';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Come in' };

interface Props {
  readonly params: Promise<{ readonly code: string }>;
}

export default async function JoinPage({ params }: Props) {
  const { code } = await params;
  const world = webWorld();
  const [invited, space] = await Promise.all([invitation(world, code), workspace(world.db)]).catch(toldAway);
  return (
    <Join
      code={code}
      workspace={space.name}
      invited={invited ? { email: invited.email, name: invited.name, role: invited.role, by: invited.invitedByName } : null}
    />
  );
}
