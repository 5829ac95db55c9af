import * as oidc from 'openid-client';
import { fetch } from 'undici';
import { dialAgent, onTheWire } from '../net';
import { WorldFailure, type SignIns, type SignInServer, type Tokens } from '../ports';

const LIMITS = { connectMs: 5_000, answerMs: 10_000, maxBytes: 512 * 1024 } as const;
/** So long a service's description is taken as it was read. */
const KEPT_MS = 10 * 60_000;
const ALWAYS = ['openid', 'email'];

/** Reads what a service says of itself, and keeps it for a while. */
function describer(standin: string | null): (server: SignInServer) => Promise<oidc.Configuration> {
  const agents = { open: dialAgent({ standin }, LIMITS), private: dialAgent({ standin, privateNetwork: true }, LIMITS) };
  const known = new Map<string, { readonly config: oidc.Configuration; readonly until: number }>();
  const carrier =
    (server: SignInServer): oidc.CustomFetch =>
    async (url, options) =>
      (await fetch(onTheWire(new URL(url), standin), {
        method: options.method,
        headers: options.headers,
        redirect: 'manual',
        ...(options.body != null && { body: options.body as string | URLSearchParams }),
        ...(options.signal !== undefined && { signal: options.signal }),
        dispatcher: server.privateNetwork ? agents.private : agents.open,
      })) as unknown as Response;
  /** Without TLS: a server in our own network that the owner has let, and the stand-in. */
  const speaksPlainly = (server: SignInServer): boolean => {
    const { protocol, hostname } = new URL(server.issuer);
    return (server.privateNetwork && protocol === 'http:') || (standin !== null && hostname.endsWith('.example'));
  };
  return async (server) => {
    const key = JSON.stringify(server);
    const kept = known.get(key);
    if (kept && kept.until > performance.now()) return kept.config;
    const config = await oidc.discovery(new URL(server.issuer), server.clientId, server.secret ?? undefined, auth(server), {
      [oidc.customFetch]: carrier(server),
      timeout: LIMITS.answerMs / 1000,
      execute: [
        // A token comes over our own line, but the key it is signed with is looked at all the same.
        oidc.enableNonRepudiationChecks,
        // eslint-disable-next-line @typescript-eslint/no-deprecated -- not old, only marked as dangerous: an owner has let it
        ...(speaksPlainly(server) ? [oidc.allowInsecureRequests] : []),
      ],
    });
    known.set(key, { config, until: performance.now() + KEPT_MS });
    return config;
  };
}

/** Sign-in services by OpenID Connect. Hosts ending in `.example` are at the stand-in, or nowhere. */
export function oidcSignIns(standin: string | null): SignIns {
  const configOf = describer(standin);
  return {
    async look(server) {
      await told(server, () => configOf(server));
    },
    begin: (server, ask) =>
      told(server, async () => {
        const config = await configOf(server);
        const underway = { state: oidc.randomState(), nonce: oidc.randomNonce(), verifier: oidc.randomPKCECodeVerifier() };
        const url = oidc.buildAuthorizationUrl(config, {
          redirect_uri: ask.backTo,
          scope: [...new Set([...ALWAYS, ...ask.scopes])].join(' '),
          state: underway.state,
          nonce: underway.nonce,
          code_challenge: await oidc.calculatePKCECodeChallenge(underway.verifier),
          code_challenge_method: 'S256',
          ...(ask.account !== null && { login_hint: ask.account }),
          // A mailbox is used while nobody sits before it: some services want to be told so twice.
          ...(ask.scopes.length > 0 && { access_type: 'offline', prompt: 'consent' }),
        });
        return { url: url.href, underway };
      }),
    end: (server, { url, underway }) =>
      told(server, async () => {
        const answer = await oidc.authorizationCodeGrant(await configOf(server), new URL(url), {
          expectedState: underway.state,
          expectedNonce: underway.nonce,
          pkceCodeVerifier: underway.verifier,
          idTokenExpected: true,
        });
        const claims = answer.claims();
        return {
          subject: claims?.sub ?? '',
          email: typeof claims?.email === 'string' ? claims.email.trim().toLowerCase() : null,
          emailVerified: claims?.email_verified === true,
          tokens: tokensOf(answer),
        };
      }),
    renew: (server, refresh) => told(server, async () => tokensOf(await oidc.refreshTokenGrant(await configOf(server), refresh))),
  };
}

const auth = ({ secret }: SignInServer): oidc.ClientAuth => (secret === null ? oidc.None() : oidc.ClientSecretPost(secret));

const tokensOf = (answer: oidc.TokenEndpointResponse): Tokens => ({
  access: answer.access_token,
  refresh: answer.refresh_token ?? null,
  seconds: answer.expires_in ?? null,
});

/** What a service said, or that it said nothing. Its own words are short and come from its protocol. */
async function told<T>(server: SignInServer, run: () => Promise<T>): Promise<T> {
  const { host } = new URL(server.issuer);
  try {
    return await run();
  } catch (error) {
    if (error instanceof oidc.ResponseBodyError || error instanceof oidc.AuthorizationResponseError)
      throw new WorldFailure('refused', `${host} says no: ${(error.error_description ?? error.error).slice(0, 200)}`, false);
    const code = error instanceof Error && 'code' in error ? String(error.code) : '';
    if (error instanceof Error && code.startsWith('OAUTH_') && !/TIMEOUT|ABORT/.test(code))
      throw new WorldFailure('broken', `${host} does not answer as OpenID Connect has it: ${error.message.slice(0, 200)}`, true);
    throw new WorldFailure('unreachable', `${host} could not be reached`, true);
  }
}
