/** The doors that need no sign-in of ours: forms, postings, answers, leaving. Each reads no more than it may and says what is wrong. */
import { z } from 'zod';
import { cleanText, cutText } from '../../core/base';
import { takeAnswer } from '../trips/deliver-calls';
import { receiveForm, type Sent } from '../intake/forms';
import { tellChanged } from '../platform/live';
import { receiveWebhook } from '../intake/webhook-intakes';
import { Refusal, type World } from '../platform/world';
import { BODY_LIMITS, parseJson, readForm, readText } from './body';
import { addressOf, atOpenDoor, guards, problem } from './edge';

const SLUG = /^[a-z0-9][a-z0-9-]{0,100}$/;
const ANSWER_MAX = 10_000;
const FILES_MAX = 20;
const STATUS: Readonly<Record<Refusal['kind'], number>> = {
  'not found': 404,
  'not allowed': 401,
  'not valid': 400,
  conflict: 409,
  'too often': 429,
};

const broke = (world: World, what: string, error: unknown): void => {
  world.log.error(what, { error: error instanceof Error ? (error.stack ?? error.message) : String(error) });
};

/** What somebody sends through a form: answers as `a.ID`, files as `f.ID`. Guarded by stamp, trap and pace. */
export function answerForm(world: World, request: Request, slug: string): Promise<Response> {
  const says = (status: number, text: string): Response => Response.json({ ok: false, problems: [], says: text }, { status });
  return atOpenDoor(world, request, 'open', async () => {
    const sender = addressOf(request);
    const leave = guards(world).forms.enter(sender);
    if (!leave) return says(429, 'Too much is being sent at the moment: please try again in a minute.');
    try {
      const data = await readForm(request, BODY_LIMITS.form);
      if (!data) return says(400, 'This cannot be read as a form.');
      const answer = await receiveForm(world, slug, await sentOf(data, sender));
      if (answer.ok) await tellChanged(world, 'counts', 'intake', 'records');
      return Response.json(answer, { status: answer.ok ? 201 : 400 });
    } catch (error) {
      if (error instanceof Refusal) return says(STATUS[error.kind], error.message);
      if (error instanceof Error && error.name === 'BodyProblem')
        return says(413, 'That is too large: 8 MB for a file at most, 24 MB in all.');
      broke(world, 'a form broke', error);
      return says(503, 'Something broke on our side. Nothing you wrote is lost on this page: please try again.');
    } finally {
      leave();
    }
  });
}

async function sentOf(data: FormData, sender: string): Promise<Sent> {
  const raw: Record<string, string> = {};
  const files: Sent['files'][number][] = [];
  for (const [name, value] of data) {
    const id = cleanText(name.slice(2)).slice(0, 100);
    if (typeof value === 'string' && name.startsWith('a.')) raw[id] = cutText(cleanText(value), ANSWER_MAX);
    else if (typeof value !== 'string' && name.startsWith('f.') && value.size > 0 && files.length < FILES_MAX)
      files.push({ question: id, name: cutText(cleanText(value.name), 200), bytes: new Uint8Array(await value.arrayBuffer()) });
  }
  const text = (name: string): string => {
    const value = data.get(name);
    return typeof value === 'string' ? cleanText(value).slice(0, 500) : '';
  };
  return { raw, files, opened: text('opened'), trap: text('homepage_2'), sender };
}

/** A webhook address: Standard Webhooks headers, or a token as `Authorization: Bearer …` or `X-Token`. */
export function answerPosting(world: World, request: Request, slug: string): Promise<Response> {
  return atOpenDoor(world, request, 'open', async () => {
    const { headers } = request;
    try {
      if (!SLUG.test(slug)) throw new Refusal('not found', 'nothing is taken in at this address');
      const answer = await receiveWebhook(world, slug, {
        body: await readText(request, BODY_LIMITS.posting),
        id: headers.get('webhook-id')?.slice(0, 200) ?? null,
        seconds: Number(headers.get('webhook-timestamp') ?? Number.NaN),
        signatures: headers.get('webhook-signature')?.slice(0, 2_000) ?? null,
        token:
          headers
            .get('authorization')
            ?.replace(/^Bearer\s/i, '')
            .trim() ?? headers.get('x-token'),
      });
      await tellChanged(world, 'counts', 'intake', 'records');
      return Response.json(answer, { status: 202 });
    } catch (error) {
      if (error instanceof Refusal) return problem(STATUS[error.kind], 'Not taken', error.message);
      throw error;
    }
  });
}

const answerSchema = z.record(z.string().max(100), z.json());
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** The answer to a hand-over: the address itself says whose it is. */
export function answerHandOver(world: World, request: Request, call: string, code: string): Promise<Response> {
  return atOpenDoor(world, request, 'open', async () => {
    const body = answerSchema.safeParse(parseJson((await readText(request, BODY_LIMITS.answer)) || '{}'));
    if (!body.success) return problem(400, 'Not taken', 'an answer is a JSON object');
    try {
      if (!UUID.test(call) || !/^[\w-]{1,200}$/.test(code)) throw new Refusal('not found', 'not one of ours');
      await takeAnswer(world, call, code, body.data);
      return Response.json({ ok: true });
    } catch (error) {
      if (error instanceof Refusal) return problem(404, 'Not taken', 'nobody waits for an answer at this address');
      throw error;
    }
  });
}
