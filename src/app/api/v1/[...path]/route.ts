import { answerApi } from '../../../../server/http/answer';
import { webWorld } from '../../../../server/wire/web';

export const dynamic = 'force-dynamic';

async function answer(request: Request, context: { params: Promise<{ path: string[] }> }): Promise<Response> {
  return answerApi(webWorld(), request, `/${(await context.params).path.join('/')}`);
}
export { answer as GET, answer as POST, answer as PUT, answer as PATCH, answer as DELETE };
