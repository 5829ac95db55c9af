import { answerPosting } from '../../../server/http/doors';
import { webWorld } from '../../../server/wire/web';

type Context = { params: Promise<{ slug: string }> };

export async function POST(request: Request, context: Context): Promise<Response> {
  return answerPosting(webWorld(), request, (await context.params).slug);
}
