import { unsubscribe } from '../../../../server/messages/receive-mail';
import { Refusal } from '../../../../server/platform/world';
import { webWorld } from '../../../../server/wire/web';

type Context = { params: Promise<{ message: string; code: string }> };
const page = (text: string, button = '', status = 200): Response =>
  new Response(
    `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Unsubscribe</title><body style="font:16px/24px sans-serif;max-width:32em;margin:4em auto;padding:0 1em"><p>${text}</p>${button}</body></html>`,
    { status, headers: { 'content-type': 'text/html; charset=utf-8' } },
  );

/** Looking at the link changes nothing: mail scanners follow links. */
export function GET(): Response {
  return page(
    'Do you want no more mail from us?',
    '<form method="post"><button style="font:inherit;padding:.4em 1em">No more mail, please</button></form>',
  );
}

/** RFC 8058: one POST, no sign-in, no question. */
export async function POST(_request: Request, context: Context): Promise<Response> {
  const { message, code } = await context.params;
  try {
    if (!/^[0-9a-f-]{36}$/.test(message)) throw new Refusal('not allowed', 'this link is not one of ours');
    await unsubscribe(webWorld(), message, code);
    return page('Done: you will get no more mail from us.');
  } catch (error) {
    if (error instanceof Refusal) return page('This link does not work. Answer the mail with “unsubscribe” and we will stop.', '', 404);
    throw error;
  }
}
