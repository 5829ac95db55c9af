import { createHash, randomBytes } from 'node:crypto';
import http from 'node:http';
import { exportJWK, generateKeyPair, SignJWT } from 'jose';
import { listen, sendJson, type StandIn } from './server';

export interface SignInsOptions {
  /** what it calls itself; its host is asked for at this stand-in */
  readonly issuer: string;
  readonly clientId: string;
  readonly secret: string;
  /** names by e-mail */
  readonly accounts: Readonly<Record<string, string>>;
  /** accounts whose address nobody has proved */
  readonly unproven?: readonly string[];
}
export interface SignInsStandIn extends StandIn {
  /** whose token it is; undefined: nobody's, or it has ended */
  whose(token: string): string | undefined;
  /** nothing that was given out opens anything any more */
  endAll(): void;
}

interface Asked {
  readonly account: string;
  readonly scope: string;
  readonly nonce: string | null;
  readonly challenge: string;
  readonly redirectUri: string;
}
interface Given {
  readonly account: string;
  readonly scope: string;
}

const LASTS_SECONDS = 3_600;
const SHORT = (): string => randomBytes(24).toString('base64url');
const plain = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** A sign-in service (OpenID Connect Core 1.0) where one click signs in as any of its accounts. Refresh tokens are good for one use. */
export async function startSignIns(options: SignInsOptions, port: number): Promise<SignInsStandIn> {
  const { publicKey, privateKey } = await generateKeyPair('ES256');
  const jwk = { ...(await exportJWK(publicKey)), kid: 'one', alg: 'ES256', use: 'sig' };
  const codes = new Map<string, Asked>();
  const refreshes = new Map<string, Given>();
  const access = new Map<string, Given & { readonly until: number }>();
  const whose = (token: string): string | undefined => {
    const given = access.get(token);
    return given && given.until > Date.now() ? given.account : undefined;
  };
  const answerWith = async (given: Given, nonce: string | null): Promise<object> => {
    const [token, refresh] = [SHORT(), SHORT()];
    access.set(token, { ...given, until: Date.now() + LASTS_SECONDS * 1000 });
    refreshes.set(refresh, given);
    const claims = {
      email: given.account,
      email_verified: !(options.unproven ?? []).includes(given.account),
      name: options.accounts[given.account] ?? '',
      ...(nonce !== null && { nonce }),
    };
    const idToken = await new SignJWT(claims)
      .setProtectedHeader({ alg: 'ES256', kid: 'one' })
      .setIssuer(options.issuer)
      .setAudience(options.clientId)
      .setSubject(createHash('sha256').update(given.account).digest('hex').slice(0, 16))
      .setIssuedAt()
      .setExpirationTime('10m')
      .sign(privateKey);
    return {
      access_token: token,
      token_type: 'Bearer',
      expires_in: LASTS_SECONDS,
      refresh_token: refresh,
      scope: given.scope,
      id_token: idToken,
    };
  };
  const token = async (form: URLSearchParams, response: http.ServerResponse): Promise<void> => {
    const no = (error: string): void => {
      sendJson(response, { error }, 400);
    };
    if (form.get('client_id') !== options.clientId || form.get('client_secret') !== options.secret) {
      no('invalid_client');
      return;
    }
    if (form.get('grant_type') === 'refresh_token') {
      const given = refreshes.get(form.get('refresh_token') ?? '');
      refreshes.delete(form.get('refresh_token') ?? '');
      if (given) sendJson(response, await answerWith(given, null));
      else no('invalid_grant');
      return;
    }
    const asked = codes.get(form.get('code') ?? '');
    codes.delete(form.get('code') ?? '');
    const proved = createHash('sha256')
      .update(form.get('code_verifier') ?? '')
      .digest('base64url');
    if (!asked || asked.challenge !== proved || asked.redirectUri !== form.get('redirect_uri')) no('invalid_grant');
    else sendJson(response, await answerWith(asked, asked.nonce));
  };
  /** The page where one says who one is; a click comes back here with the account. */
  const authorize = (url: URL, response: http.ServerResponse): void => {
    const ask = url.searchParams;
    const back = URL.canParse(ask.get('redirect_uri') ?? '') ? new URL(ask.get('redirect_uri') ?? '') : undefined;
    if (!back || ask.get('client_id') !== options.clientId || ask.get('code_challenge_method') !== 'S256') {
      response.writeHead(400).end('nobody is known by that client');
      return;
    }
    if (ask.get('state')) back.searchParams.set('state', ask.get('state') ?? '');
    const account = ask.get('as');
    if (account !== null && (account === '' || account in options.accounts)) {
      if (account === '') back.searchParams.set('error', 'access_denied');
      else {
        const code = SHORT();
        codes.set(code, {
          account,
          scope: ask.get('scope') ?? '',
          nonce: ask.get('nonce'),
          challenge: ask.get('code_challenge') ?? '',
          redirectUri: ask.get('redirect_uri') ?? '',
        });
        back.searchParams.set('code', code);
      }
      response.writeHead(302, { location: back.href }).end();
      return;
    }
    const door = (who: string, says: string): string => {
      const to = new URL(url);
      to.searchParams.set('as', who);
      return `<p><a href="${plain(`${to.pathname}${to.search}`)}">${plain(says)}</a></p>`;
    };
    const doors = Object.entries(options.accounts).map(([who, name]) => door(who, `${name} (${who})`));
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' })
      .end(`<!doctype html><html lang="en"><title>Simulated sign-in</title><h1>Who are you?</h1>
<p>A simulated service of the demo: a click is enough. Asked for: ${plain(ask.get('scope') ?? '')}</p>${doors.join('')}${door('', 'Nobody: go back')}`);
  };
  const server = http.createServer((request, response) => {
    const url = new URL(request.url ?? '/', 'http://127.0.0.1');
    if (url.pathname === '/.well-known/openid-configuration') {
      const address = server.address();
      const here = `http://127.0.0.1:${typeof address === 'object' && address ? address.port : port}`;
      sendJson(response, {
        issuer: options.issuer,
        // Browsers reach loopback only; what Millrace asks by itself it asks by name.
        authorization_endpoint: `${here}/authorize`,
        token_endpoint: `${options.issuer}/token`,
        jwks_uri: `${options.issuer}/keys`,
        response_types_supported: ['code'],
        subject_types_supported: ['public'],
        id_token_signing_alg_values_supported: ['ES256'],
        code_challenge_methods_supported: ['S256'],
      });
    } else if (url.pathname === '/keys') sendJson(response, { keys: [jwk] });
    else if (url.pathname === '/authorize') authorize(url, response);
    // What the mail server asks about a token it was given.
    else if (url.pathname === '/whose') {
      const account = whose(url.searchParams.get('token') ?? '');
      sendJson(
        response,
        account === undefined ? { error: 'invalid_token' } : { email: account, active: true },
        account === undefined ? 401 : 200,
      );
    } else if (url.pathname === '/token' && request.method === 'POST') {
      const chunks: Buffer[] = [];
      request.on('data', (chunk: Buffer) => chunks.push(chunk));
      request.on('end', () => {
        token(new URLSearchParams(Buffer.concat(chunks).toString()), response).catch((error: unknown) => {
          sendJson(response, { error: 'server_error', error_description: String(error) }, 500);
        });
      });
    } else response.writeHead(404).end();
  });
  return {
    ...(await listen(server, port)),
    whose,
    endAll: () => {
      for (const map of [codes, refreshes, access]) map.clear();
    },
  };
}
