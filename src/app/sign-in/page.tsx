import { demoDoor } from '../../server/access/access';
import { webWorld } from '../../server/wire/web';
import { toldAway } from '../session';
import { SignIn } from '../../ui/session/view/SignIn';

export const dynamic = 'force-dynamic';

export default async function SignInPage() {
  return <SignIn demo={await demoDoor(webWorld()).catch(toldAway)} />;
}
