import { joinAt } from '../../../../server/http/join';
import { webWorld } from '../../../../server/wire/web';

type Context = { params: Promise<{ code: string }> };
export async function POST(request: Request, context: Context): Promise<Response> {
  return joinAt(webWorld(), request, (await context.params).code);
}
