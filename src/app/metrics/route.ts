import { answerMetrics } from '../../server/http/watch';
import { metricsKey, webWorld } from '../../server/wire/web';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  return answerMetrics(webWorld(), metricsKey(), request);
}
