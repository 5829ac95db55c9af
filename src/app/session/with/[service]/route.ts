import { goElsewhere } from '../../../../server/http/elsewhere';
import { webWorld } from '../../../../server/wire/web';

type Context = { params: Promise<{ service: string }> };
export async function GET(request: Request, context: Context): Promise<Response> {
  return goElsewhere(webWorld(), request, decodeURIComponent((await context.params).service));
}
