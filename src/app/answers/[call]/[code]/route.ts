import { answerHandOver } from '../../../../server/http/doors';
import { webWorld } from '../../../../server/wire/web';

type Context = { params: Promise<{ call: string; code: string }> };

export async function POST(request: Request, context: Context): Promise<Response> {
  const { call, code } = await context.params;
  return answerHandOver(webWorld(), request, call, code);
}
