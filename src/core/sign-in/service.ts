/** A service that people or mailboxes sign in by: an OpenID Connect provider (OpenID Connect Core 1.0) described by data. */
import { z } from 'zod';

export const signInServiceSchema = z.object({
  name: z.string().trim().min(1).max(60),
  /** where its description lies: `{issuer}/.well-known/openid-configuration` */
  issuer: z.string().trim().min(1).max(500),
  /** what it knows this installation by */
  clientId: z.string().trim().min(1).max(300),
  /** what is asked for so that a mailbox may be used, words apart by spaces; empty: no mailbox signs in by it */
  mailScopes: z.string().trim().max(1_000),
  /** people of this workspace come in by it */
  forPeople: z.boolean(),
  /** it stands in our own network */
  privateNetwork: z.boolean(),
});
export type SignInService = z.infer<typeof signInServiceSchema>;

export interface ServiceProblem {
  readonly at: keyof SignInService;
  readonly says: string;
}

/** RFC 6749, section 3.3: printable ASCII but quotes and backslashes. */
const SCOPE = /^[\x21\x23-\x5b\x5d-\x7e]+$/;

/** What keeps a description from being used, in the order of its gaps. */
export function serviceProblems(service: SignInService): readonly ServiceProblem[] {
  const problems: ServiceProblem[] = [];
  const say = (at: keyof SignInService, says: string): void => {
    problems.push({ at, says });
  };
  if (service.name.trim() === '') say('name', 'a sign-in service has a name, by which people know it');
  const url = URL.canParse(service.issuer) ? new URL(service.issuer) : undefined;
  if (!url || !/^https?:$/.test(url.protocol)) say('issuer', 'its address begins with https://');
  else if (url.search !== '' || url.hash !== '') say('issuer', 'its address has no ? and no #: what stands behind them is no part of it');
  else if (url.protocol === 'http:' && !service.privateNetwork)
    say('issuer', 'without https anybody on the way could come in: only a server in our own network may be asked so');
  if (service.clientId.trim() === '') say('clientId', 'what it calls this installation is missing: it shows that as client ID');
  const wrong = scopesOf(service).find((scope) => !SCOPE.test(scope));
  if (wrong !== undefined) say('mailScopes', `“${wrong}” is no scope: they are apart by spaces, without quotes`);
  if (!service.forPeople && scopesOf(service).length === 0)
    say('forPeople', 'it is for people, or for mailboxes, or both: as it stands nobody signs in by it');
  return problems;
}

/** What is asked for so that a mailbox may be used. */
export const scopesOf = (service: Pick<SignInService, 'mailScopes'>): readonly string[] =>
  service.mailScopes.split(/\s+/).filter((scope) => scope !== '');
