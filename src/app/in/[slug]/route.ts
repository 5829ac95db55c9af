import { receiveWebhook } from '../../../server/usecases/webhook-intakes';
import { tellViewers } from '../../../server/usecases/live';
import { Refusal } from '../../../server/usecases/world';
import { webWorld } from '../../../server/wire/web';

type Context = { params: Promise<{ slug: string }> };
const MAX_BYTES = 512 * 1024;
const STATUS: Readonly<Partial<Record<Refusal['kind'], number>>> = {
  'not found': 404,
  'not allowed': 401,
  'not valid': 400,
  conflict: 409,
};

/** A webhook address: Standard Webhooks headers, or a token as `Authorization: Bearer …` or `X-Token`. */
export async function POST(request: Request, context: Context): Promise<Response> {
  const { slug } = await context.params;
  const problem = (status: number, detail: string): Response =>
    Response.json(
      { type: 'about:blank', title: 'Not taken', status, detail },
      { status, headers: { 'content-type': 'application/problem+json' } },
    );
  const { headers } = request;
  if (Number(headers.get('content-length') ?? 0) > MAX_BYTES) return problem(413, 'a message is at most 512 kB');
  const body = await request.text();
  if (body.length > MAX_BYTES) return problem(413, 'a message is at most 512 kB');
  const world = webWorld();
  try {
    const answer = await receiveWebhook(world, slug, {
      body,
      id: headers.get('webhook-id')?.slice(0, 200) ?? null,
      seconds: Number(headers.get('webhook-timestamp') ?? Number.NaN),
      signatures: headers.get('webhook-signature'),
      token: headers.get('authorization')?.replace(/^Bearer\s+/i, '') ?? headers.get('x-token'),
    });
    await tellViewers(world, { kind: 'work' });
    return Response.json(answer, { status: 202 });
  } catch (error) {
    if (error instanceof Refusal) return problem(STATUS[error.kind] ?? 400, error.message);
    throw error;
  }
}
