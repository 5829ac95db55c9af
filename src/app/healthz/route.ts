import { answerHealth } from '../../server/http/watch';

export const dynamic = 'force-dynamic';

export function GET(): Response {
  return answerHealth();
}
