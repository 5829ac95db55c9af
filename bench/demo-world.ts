/** What the benches against a running demo world share: its addresses, its database, calls, and signing in. */
import postgres from 'postgres';

const { BENCH_URL = '', BENCH_TOKEN: token = '', DATABASE_URL: databaseUrl = '', BENCH_PASSWORD: password = '' } = process.env;
export const url = BENCH_URL;
export const sql = postgres(databaseUrl, { max: 2, onnotice: () => undefined });

export async function api<T>(method: string, at: string, body?: unknown): Promise<T> {
  const response = await fetch(`${url}/api/v1${at}`, {
    method,
    headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${method} ${at}: ${response.status} ${await response.text()}`);
  return (await response.json()) as T;
}

/** The cookie of one of the demo's people, found by the beginning of the name. */
export async function signIn(name = 'Ines'): Promise<string> {
  const [who] = await sql<{ email: string }[]>`select email from app_user where name like ${`${name}%`}`;
  const response = await fetch(`${url}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url },
    body: JSON.stringify({ email: who?.email, password }),
  });
  const cookie = response.headers.get('set-cookie');
  if (!response.ok || cookie === null) throw new Error(`not signed in: ${response.status} ${await response.text()}`);
  return cookie.split(';')[0] ?? '';
}
