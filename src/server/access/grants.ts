/** What mailboxes were given at a sign-in service, kept sealed and renewed before it ends. */
import { z } from 'zod';
import { seal, unseal } from '../platform/seal';
import type { World } from '../platform/world';
import { WorldFailure, type Proof, type Tokens } from '../ports';
import { serviceOf } from './sign-in-services';
import { holdGrant, putGrant, putGrantProblem, renewGrant } from './store/sign-in';

const keptSchema = z.object({ access: z.string(), refresh: z.string().nullable() });
type Kept = z.infer<typeof keptSchema>;
/** A service that does not say how long a token is good is asked again so soon. */
const UNSAID_SECONDS = 600;

const sealed = (world: World, kept: Kept): string => seal(world.secret, JSON.stringify(kept));

export async function keepGrant(world: World, to: { readonly service: string; readonly account: string }, tokens: Tokens): Promise<void> {
  const { access, refresh, seconds } = tokens;
  await putGrant(
    world.db,
    { id: world.newId(), ...to, secret: sealed(world, { access, refresh }), seconds: seconds ?? UNSAID_SECONDS },
    await world.clock.now(),
  );
}

/** What a mailbox signs in with: its password, or its account's token at a service, renewed where it ends soon. */
export async function proofOf(
  world: World,
  who: { readonly service: string | null; readonly user: string },
  sealedPassword: string | null,
): Promise<Proof> {
  const { service } = who;
  if (service === null) return { by: 'password', password: sealedPassword === null ? '' : unseal(world.secret, sealedPassword) };
  const known = await serviceOf(world, service);
  if (!known) return { by: 'nothing', why: `the sign-in service “${service}” is gone` };
  const account = who.user.trim().toLowerCase();
  const again = `sign in as ${account} at ${service} again`;
  return world.db.begin(async (tx): Promise<Proof> => {
    const grant = await holdGrant(tx, service, account);
    if (!grant) return { by: 'nothing', why: `nobody has signed in as ${account} at ${service} yet` };
    const kept = keptSchema.parse(JSON.parse(unseal(world.secret, grant.secret)));
    if (grant.isFresh) return { by: 'token', token: kept.access };
    if (kept.refresh === null) return { by: 'nothing', why: `what ${service} gave has ended: ${again}` };
    try {
      const next = await world.signIns.renew(known.server, kept.refresh);
      const fresh = { access: next.access, refresh: next.refresh ?? kept.refresh };
      await renewGrant(tx, grant.id, sealed(world, fresh), next.seconds ?? UNSAID_SECONDS);
      return { by: 'token', token: next.access };
    } catch (error) {
      if (!(error instanceof WorldFailure)) throw error;
      const why = error.code === 'refused' ? `${error.message}: ${again}` : error.message;
      await putGrantProblem(tx, grant.id, why);
      return { by: 'nothing', why };
    }
  });
}
