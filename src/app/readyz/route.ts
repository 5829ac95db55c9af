import { answerReady } from '../../server/http/watch';
import { webWorld } from '../../server/wire/web';

export const dynamic = 'force-dynamic';

export async function GET(): Promise<Response> {
  return answerReady(webWorld());
}
