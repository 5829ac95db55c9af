import { refusalText } from '../../../../core/sign-in';
import { signInView } from '../../../../server/access/sign-in-services';
import { workspace } from '../../../../server/platform/world';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { SignInServices } from '../../../../ui/settings/view/SignInServices';
import { signed } from '../../../session';

export const metadata = { title: 'Signing in' };

interface Query {
  readonly account?: string;
  readonly wanted?: string;
  readonly refused?: string;
}

export default async function SignInServicesPage({ searchParams }: { readonly searchParams: Promise<Query> }) {
  const { world, may } = await signed();
  const [index, { items, backTo }, space, query] = await Promise.all([
    settingsIndex(world),
    signInView(world),
    workspace(world.db),
    searchParams,
  ]);
  return (
    <SignInServices
      index={index}
      first={items}
      backTo={backTo}
      zone={space.zone}
      came={cameBack(query, new Set(items.flatMap(({ accounts }) => accounts.map(({ account }) => account))))}
      mayChange={may('keep secrets')}
    />
  );
}

/** How the last way to a service ended. An address says only what is so: an account that was signed in, or a refusal there are words for. */
function cameBack(
  { account, wanted, refused }: Query,
  known: ReadonlySet<string>,
): { readonly isGood: boolean; readonly says: string } | null {
  const why = refusalText(refused);
  if (why !== undefined) return { isGood: false, says: why };
  if (account === undefined || !known.has(account)) return null;
  return wanted === undefined
    ? { isGood: true, says: `${account} is signed in. Check the mailbox that opens by it.` }
    : { isGood: false, says: `${account} was signed in there, not the account of the mailbox: choose that one and sign in again.` };
}
