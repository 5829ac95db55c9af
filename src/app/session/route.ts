import { z } from 'zod';
import { cookieOf, sameOrigin, SESSION_COOKIE } from '../../server/http/answer';
import { signIn, signOut } from '../../server/usecases/access';
import { Refusal } from '../../server/usecases/world';
import { webWorld } from '../../server/wire/web';

const schema = z.object({ email: z.string().max(200), password: z.string().max(200) });
const cookie = (token: string, maxAge: number): string => `${SESSION_COOKIE}=${token}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${maxAge}`;

export async function POST(request: Request): Promise<Response> {
  if (!sameOrigin(request)) return Response.json({ detail: 'sign in from Millrace’s own page' }, { status: 403 });
  const read = schema.safeParse(await request.json().catch(() => undefined));
  if (!read.success) return Response.json({ detail: 'e-mail and password are needed' }, { status: 400 });
  try {
    const { token, user, maxAgeSeconds } = await signIn(webWorld(), read.data.email, read.data.password);
    return Response.json({ name: user.name }, { headers: { 'set-cookie': cookie(token, maxAgeSeconds) } });
  } catch (error) {
    if (error instanceof Refusal) return Response.json({ detail: error.message }, { status: error.kind === 'too often' ? 429 : 401 });
    throw error;
  }
}

export async function DELETE(request: Request): Promise<Response> {
  if (!sameOrigin(request)) return new Response(null, { status: 403 });
  const token = cookieOf(request);
  if (token) await signOut(webWorld(), token);
  return new Response(null, { status: 204, headers: { 'set-cookie': cookie('', 0) } });
}
