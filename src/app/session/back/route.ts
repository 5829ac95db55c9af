import { backFromElsewhere } from '../../../server/http/elsewhere';
import { webWorld } from '../../../server/wire/web';

export async function GET(request: Request): Promise<Response> {
  return backFromElsewhere(webWorld(), request);
}
