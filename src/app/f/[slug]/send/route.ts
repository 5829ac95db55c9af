import { receiveForm, type Sent } from '../../../../server/usecases/forms';
import { tellViewers } from '../../../../server/usecases/live';
import { Refusal } from '../../../../server/usecases/world';
import { webWorld } from '../../../../server/wire/web';

type Context = { params: Promise<{ slug: string }> };
const MAX_BYTES = 24 * 1024 * 1024;
const STATUS: Readonly<Partial<Record<Refusal['kind'], number>>> = { 'not found': 404, 'too often': 429 };

/** What somebody sends through a form: answers as `a.ID`, files as `f.ID`. No sign-in; guarded by stamp, trap and pace. */
export async function POST(request: Request, context: Context): Promise<Response> {
  const { slug } = await context.params;
  const problem = (status: number, says: string): Response => Response.json({ ok: false, problems: [], says }, { status });
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BYTES) return problem(413, 'That is too large: 8 MB for a file at most.');
  const data = await request.formData().catch(() => undefined);
  if (!data) return problem(400, 'This cannot be read as a form.');
  const raw: Record<string, string> = {};
  const files: Sent['files'][number][] = [];
  for (const [name, value] of data) {
    if (typeof value === 'string' && name.startsWith('a.')) raw[name.slice(2)] = value.slice(0, 10_000);
    else if (typeof value !== 'string' && name.startsWith('f.') && value.size > 0)
      files.push({ question: name.slice(2), name: value.name, bytes: new Uint8Array(await value.arrayBuffer()) });
  }
  const text = (name: string): string => {
    const value = data.get(name);
    return typeof value === 'string' ? value : '';
  };
  const world = webWorld();
  try {
    const sender = request.headers.get('x-forwarded-for')?.split(',').at(-1)?.trim() ?? 'direct';
    const answer = await receiveForm(world, slug, { raw, files, opened: text('opened'), trap: text('homepage_2'), sender });
    if (answer.ok) await tellViewers(world, { kind: 'work' });
    return Response.json(answer, { status: answer.ok ? 201 : 400 });
  } catch (error) {
    if (error instanceof Refusal) return problem(STATUS[error.kind] ?? 400, error.message);
    world.log.error('a form broke', { slug, error: error instanceof Error ? (error.stack ?? error.message) : String(error) });
    return problem(500, 'Something broke on our side. Nothing you wrote is lost on this page: please try again.');
  }
}
