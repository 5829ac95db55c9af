/** Bodies as they come: never more of them is held than the operation allows, whatever their sender says of their length. */
import { once } from 'node:events';
import fs from 'node:fs';
import { finished } from 'node:stream/promises';
import { cleanJson, TooDeep } from '../../core/base';

/** Limits of what is sent to us, by door; bytes. `docs/security.md` says what they are for. */
export const BODY_LIMITS = {
  json: 1024 * 1024,
  flow: 12 * 1024 * 1024,
  list: 100 * 1024 * 1024,
  bundle: 2 * 1024 * 1024,
  signIn: 4 * 1024,
  posting: 512 * 1024,
  answer: 64 * 1024,
  form: 24 * 1024 * 1024,
} as const;

/** A body that cannot be taken, with the status that says why. */
export class BodyProblem extends Error {
  constructor(
    readonly status: 400 | 408 | 413,
    message: string,
  ) {
    super(message);
    this.name = 'BodyProblem';
  }
}

const size = (bytes: number): string => (bytes < 1024 * 1024 ? `${bytes / 1024} kB` : `${bytes / 1024 / 1024} MB`);
const tooLarge = (max: number): BodyProblem => new BodyProblem(413, `a body may have ${size(max)} here`);

/** The pieces of a body, up to `max` bytes; what declares more is refused before any of it is read. Throws `BodyProblem`. */
async function* piecesOf(request: Request, max: number): AsyncIterable<Uint8Array> {
  if (Number(request.headers.get('content-length') ?? 0) > max) {
    await request.body?.cancel().catch(() => undefined);
    throw tooLarge(max);
  }
  if (!request.body) return;
  const reader = (request.body as ReadableStream<Uint8Array>).getReader();
  let sum = 0;
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return;
      sum += value.byteLength;
      if (sum > max) throw tooLarge(max);
      yield value;
    }
  } catch (error) {
    if (error instanceof BodyProblem) throw error;
    throw new BodyProblem(400, 'the body ended before it was whole');
  } finally {
    reader.cancel().catch(() => undefined);
  }
}

export async function readBytes(request: Request, max: number): Promise<Uint8Array<ArrayBuffer>> {
  const chunks: Uint8Array[] = [];
  for await (const chunk of piecesOf(request, max)) chunks.push(chunk);
  return new Uint8Array(Buffer.concat(chunks));
}

export async function readText(request: Request, max: number): Promise<string> {
  return new TextDecoder().decode(await readBytes(request, max));
}

/** JSON with clean texts; an empty body is an empty object. Throws `BodyProblem`. */
export async function readJson(request: Request, max: number): Promise<unknown> {
  const text = await readText(request, max);
  return text === '' ? {} : parseJson(text);
}

export function parseJson(text: string): unknown {
  try {
    return cleanJson(JSON.parse(text));
  } catch (error) {
    throw new BodyProblem(400, error instanceof TooDeep ? error.message : 'the body is not JSON');
  }
}

/** The body goes to a file as it comes. Throws `BodyProblem`. */
export async function saveBody(request: Request, max: number, file: string): Promise<void> {
  const out = fs.createWriteStream(file);
  try {
    for await (const chunk of piecesOf(request, max)) if (!out.write(chunk)) await once(out, 'drain');
  } finally {
    out.end();
    await finished(out);
  }
}

/** A form's parts, read from a body of limited length. Undefined when it is no form. Throws `BodyProblem`. */
export async function readForm(request: Request, max: number): Promise<FormData | undefined> {
  const type = request.headers.get('content-type') ?? '';
  const bytes = await readBytes(request, max);
  return new Response(bytes, { headers: { 'content-type': type } }).formData().catch(() => undefined);
}
