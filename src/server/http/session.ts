/** The door of people: in, out, and out everywhere. */
import { z } from 'zod';
import { CodeWanted, endOwnSessions, sessionUser, signIn, signOut } from '../access/access';
import { Refusal, type World } from '../platform/world';
import { cookieOf, sameOrigin, SESSION_COOKIE } from './answer';
import { BODY_LIMITS, readJson } from './body';
import { addressOf, atOpenDoor, problem } from './edge';

const inSchema = z.object({ email: z.string().max(320), password: z.string().max(1_000), code: z.string().max(40).optional() });
const endSchema = z.object({ end: z.enum(['others', 'all']) });

/** Sent back by browsers on our own pages only, never to scripts, and over https only where Millrace is reached by https. */
export const sessionCookie = (world: World, token: string, maxAge: number): string =>
  `${SESSION_COOKIE}=${token}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${maxAge}${world.publicUrl.startsWith('https:') ? '; Secure' : ''}`;

export function signInAt(world: World, request: Request): Promise<Response> {
  return atOpenDoor(world, request, 'signIn', async () => {
    if (!sameOrigin(request)) return problem(403, 'Not allowed', 'sign in from Millrace’s own page');
    const read = inSchema.safeParse(await readJson(request, BODY_LIMITS.signIn));
    if (!read.success) return problem(400, 'Not valid', 'e-mail and password are needed');
    try {
      const { token, user, maxAgeSeconds } = await signIn(world, read.data.email, read.data.password, addressOf(request), read.data.code);
      return Response.json({ name: user.name }, { headers: { 'set-cookie': sessionCookie(world, token, maxAgeSeconds) } });
    } catch (error) {
      if (error instanceof CodeWanted) return problem(401, 'Not signed in', error.message, { wants: 'code' });
      if (error instanceof Refusal) return problem(error.kind === 'too often' ? 429 : 401, 'Not signed in', error.message);
      throw error;
    }
  });
}

export function signOutAt(world: World, request: Request): Promise<Response> {
  return atOpenDoor(world, request, 'open', async () => {
    if (!sameOrigin(request)) return problem(403, 'Not allowed', 'sign out from Millrace’s own page');
    const token = cookieOf(request);
    if (token) await signOut(world, token);
    return new Response(null, { status: 204, headers: { 'set-cookie': sessionCookie(world, '', 0) } });
  });
}

/** Ends one's own sessions: all others, or all. */
export function endAllSessions(world: World, request: Request): Promise<Response> {
  return atOpenDoor(world, request, 'open', async () => {
    if (!sameOrigin(request)) return problem(403, 'Not allowed', 'end sessions from Millrace’s own page');
    const token = cookieOf(request);
    const user = await sessionUser(world, token);
    if (!user) return problem(401, 'Not signed in', 'sign in first');
    const read = endSchema.safeParse(await readJson(request, BODY_LIMITS.signIn));
    if (!read.success) return problem(400, 'Not valid', 'say which: others or all');
    const all = read.data.end === 'all';
    const ended = await endOwnSessions(world, { userId: user.id, name: user.name }, all ? undefined : token);
    return Response.json({ ended }, all ? { headers: { 'set-cookie': sessionCookie(world, '', 0) } } : {});
  });
}
