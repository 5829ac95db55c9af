import { z } from 'zod';
import { takeAnswer } from '../../../../server/usecases/deliver-calls';
import { Refusal } from '../../../../server/usecases/world';
import { webWorld } from '../../../../server/wire/web';

type Context = { params: Promise<{ call: string; code: string }> };
const bodySchema = z.record(z.string().max(100), z.json());
const MAX_BYTES = 64 * 1024;

/** The answer to a hand-over: the address itself says whose it is. */
export async function POST(request: Request, context: Context): Promise<Response> {
  const { call, code } = await context.params;
  const problem = (status: number, detail: string): Response =>
    Response.json(
      { type: 'about:blank', title: 'Not taken', status, detail },
      { status, headers: { 'content-type': 'application/problem+json' } },
    );
  const text = await request.text();
  if (text.length > MAX_BYTES) return problem(413, 'an answer is at most 64 KB of JSON');
  const body = bodySchema.safeParse(
    await Promise.resolve(text)
      .then(JSON.parse)
      .catch(() => undefined),
  );
  if (!body.success) return problem(400, 'an answer is a JSON object');
  try {
    await takeAnswer(webWorld(), call, code, body.data);
    return Response.json({ ok: true });
  } catch (error) {
    if (error instanceof Refusal) return problem(404, 'nobody waits for an answer at this address');
    throw error;
  }
}
