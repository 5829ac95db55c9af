import { answerLive } from '../../server/http/live';
import { liveHub, webWorld } from '../../server/wire/web';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  return answerLive(webWorld(), liveHub(), request);
}
