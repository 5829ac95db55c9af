/** The door of those who were asked in: a name, a password, and a session. */
import { z } from 'zod';
import { signIn } from '../access/access';
import { join } from '../access/people-here';
import { Refusal, type World } from '../platform/world';
import { sameOrigin } from './answer';
import { BODY_LIMITS, readJson } from './body';
import { addressOf, atOpenDoor, problem } from './edge';
import { sessionCookie } from './session';

const joinSchema = z.object({ name: z.string().max(80), email: z.string().max(320).optional(), password: z.string().max(1_000) });

export function joinAt(world: World, request: Request, code: string): Promise<Response> {
  return atOpenDoor(world, request, 'signIn', async () => {
    if (!sameOrigin(request)) return problem(403, 'Not allowed', 'come in from Millrace’s own page');
    const read = joinSchema.safeParse(await readJson(request, BODY_LIMITS.signIn));
    if (!read.success) return problem(400, 'Not valid', 'a name and a password are needed');
    try {
      const { email } = await join(world, code, read.data);
      const { token, user, maxAgeSeconds } = await signIn(world, email, read.data.password, addressOf(request));
      return Response.json({ name: user.name }, { status: 201, headers: { 'set-cookie': sessionCookie(world, token, maxAgeSeconds) } });
    } catch (error) {
      if (error instanceof Refusal) return problem(error.kind === 'not found' ? 404 : 400, 'Not let in', error.message);
      throw error;
    }
  });
}
