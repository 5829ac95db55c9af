import { endAllSessions, signInAt, signOutAt } from '../../server/http/session';
import { webWorld } from '../../server/wire/web';

export async function POST(request: Request): Promise<Response> {
  return signInAt(webWorld(), request);
}
export async function DELETE(request: Request): Promise<Response> {
  return signOutAt(webWorld(), request);
}
export async function PUT(request: Request): Promise<Response> {
  return endAllSessions(webWorld(), request);
}
