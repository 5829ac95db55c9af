/** The doors to sign-in services: out to them, and back. Browsers come here by links and redirects, so that only cookies tell who they are. */
import { refusalText } from '../../core/sign-in';
import { sessionUser } from '../access/access';
import { may } from '../access/may';
import { beginElsewhere, endElsewhere, NotLetIn, UNDERWAY_SECONDS } from '../access/sign-in-elsewhere';
import type { World } from '../platform/world';
import { cookieOf } from './answer';
import { addressOf, atOpenDoor, problem } from './edge';
import { sessionCookie } from './session';

const COOKIE = 'millrace_underway';
const underwayCookie = (world: World, kept: string, maxAge: number): string =>
  `${COOKIE}=${kept}; Path=/session; HttpOnly; SameSite=Lax; Max-Age=${maxAge}${world.publicUrl.startsWith('https:') ? '; Secure' : ''}`;
const keptIn = (request: Request): string | undefined =>
  new RegExp(`(?:^|;\\s*)${COOKIE}=([^;]+)`).exec(request.headers.get('cookie') ?? '')?.[1];

const MAILBOXES = '/settings/sign-in';
/** Nothing of an address that came back goes on to the next page, and no page of ours is kept by a browser for the next person. */
function sendTo(to: string, cookies: readonly string[] = []): Response {
  const headers = new Headers({ location: to, 'cache-control': 'no-store', 'referrer-policy': 'no-referrer' });
  for (const cookie of cookies) headers.append('set-cookie', cookie);
  return new Response(null, { status: 303, headers });
}
const refused = (world: World, why: string, isMailbox: boolean): Response =>
  sendTo(`${isMailbox ? MAILBOXES : '/sign-in'}?refused=${why}`, [underwayCookie(world, '', 0)]);

/** `GET /session/with/{service}`: a person comes in by it; with `?account=` an owner signs a mailbox in. */
export function goElsewhere(world: World, request: Request, service: string): Promise<Response> {
  return atOpenDoor(world, request, 'signIn', async () => {
    const account = new URL(request.url).searchParams.get('account')?.trim().slice(0, 320) ?? '';
    const user = account === '' ? undefined : await sessionUser(world, cookieOf(request));
    if (account !== '' && (!user || !may(user.role, 'keep secrets')))
      return problem(403, 'Not allowed', 'mailboxes are signed in by an owner');
    try {
      const { url, kept } = await beginElsewhere(world, { service, mailbox: user ? { account, by: user.id } : null });
      return sendTo(url, [underwayCookie(world, kept, UNDERWAY_SECONDS)]);
    } catch (error) {
      if (error instanceof NotLetIn) return refused(world, error.why, account !== '');
      throw error;
    }
  });
}

/** `GET /session/back`: where services send people back to. */
export function backFromElsewhere(world: World, request: Request): Promise<Response> {
  return atOpenDoor(world, request, 'signIn', async () => {
    const user = await sessionUser(world, cookieOf(request));
    try {
      const ended = await endElsewhere(world, {
        kept: keptIn(request),
        search: new URL(request.url).search,
        by: user && { userId: user.id, name: user.name },
        address: addressOf(request),
      });
      const done = underwayCookie(world, '', 0);
      if (ended.kind === 'mailbox') {
        const other = ended.account === ended.wanted ? '' : `&wanted=${encodeURIComponent(ended.wanted)}`;
        return sendTo(`${MAILBOXES}?account=${encodeURIComponent(ended.account)}${other}`, [done]);
      }
      return sendTo('/', [done, sessionCookie(world, ended.session.token, ended.session.maxAgeSeconds)]);
    } catch (error) {
      if (error instanceof NotLetIn && refusalText(error.why) !== undefined) return refused(world, error.why, user !== undefined);
      throw error;
    }
  });
}
