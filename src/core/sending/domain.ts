/** What a domain says of who may write in its name (RFC 7208, RFC 6376, RFC 7489), in words, with what to put there. */
import { z } from 'zod';

const RESULTS = ['pass', 'fail', 'softfail', 'neutral', 'none', 'permerror', 'temperror'] as const;
export type ProofResult = (typeof RESULTS)[number];
export const proofResult = (raw: string | undefined): ProofResult => RESULTS.find((known) => known === raw) ?? 'none';

/** How a mail of ours would look to a reader's server that looks at the domain it is from. */
export interface DomainFacts {
  readonly domain: string;
  /** the server that hands it over; null: one of this installation, and nobody here knows what it shows outside */
  readonly host: string | null;
  /** its number; null: it has none */
  readonly ip: string | null;
  readonly spf: { readonly result: ProofResult; readonly record: string | null };
  /** what our signature was worth; `none`: there is none */
  readonly dkim: ProofResult;
  readonly dmarc: { readonly record: string | null; readonly policy: 'none' | 'quarantine' | 'reject' | null; readonly passes: boolean };
}
/** A key of ours, and what stands at the domain for it. */
export interface SigningKey {
  readonly selector: string;
  readonly publicKey: string;
}

export const domainLineSchema = z.object({
  what: z.enum(['who may send', 'signature', 'what to do with others']),
  standing: z.enum(['good', 'weak', 'wrong', 'unknown']),
  says: z.string(),
  /** a line to put at the domain (a TXT record); null: nothing */
  add: z.object({ name: z.string(), text: z.string() }).nullable(),
});
export type DomainLine = z.infer<typeof domainLineSchema>;

/** Where a key of ours is found, and what stands there. */
export const keyRecord = (domain: string, key: SigningKey): { readonly name: string; readonly text: string } => ({
  name: `${key.selector}._domainkey.${domain}`,
  text: `v=DKIM1; k=rsa; p=${key.publicKey}`,
});

export const domainOf = (address: string): string => address.slice(address.lastIndexOf('@') + 1).toLowerCase();

type Line = Omit<DomainLine, 'what'>;

function whoMaySend({ domain, host, ip, spf }: DomainFacts): Line {
  const none = spf.record === null;
  const add = { name: domain, text: host === null ? 'v=spf1 mx ~all' : `v=spf1 a:${host} ~all` };
  if (spf.result === 'temperror') return { standing: 'unknown', says: 'the name servers did not answer: check again later', add: null };
  if (none && spf.result !== 'permerror')
    return {
      standing: 'wrong',
      says: `${domain} does not say who may send for it, so anybody may seem to. Your provider’s handbook has the line; for a server of your own it is like this`,
      add,
    };
  if (spf.result === 'permerror')
    return {
      standing: 'wrong',
      says: `what ${domain} says of who may send cannot be read: it is misspelt, stands there twice, or asks more than ten names`,
      add: null,
    };
  if (/(?:^|\s)\+?all(?:\s|$)/i.test(spf.record ?? ''))
    return { standing: 'wrong', says: `${domain} lets everybody send (“all” without a ~ or a -): end it with ~all`, add: null };
  if (host === null)
    return {
      standing: 'unknown',
      says: `it says “${spf.record ?? ''}”: see that the relay’s own address outside is among them`,
      add: null,
    };
  if (ip === null)
    return { standing: 'unknown', says: `${host} has no address that could be looked for among those who may send`, add: null };
  if (spf.result === 'pass') return { standing: 'good', says: `${host} (${ip}) may send for ${domain}`, add: null };
  return {
    standing: spf.result === 'fail' ? 'wrong' : 'weak',
    says: `${host} (${ip}) is not among those who may send for ${domain}. Providers often send by other machines than they take mail with: their handbook has the words to put before “all”`,
    add: null,
  };
}

function signature({ domain, dkim }: DomainFacts, key: SigningKey | null): Line {
  if (key === null)
    return {
      standing: 'unknown',
      says: 'Millrace signs nothing for this mailbox. Where your provider signs, that is enough; else make a key here',
      add: null,
    };
  if (dkim === 'pass') return { standing: 'good', says: `mails are signed with ${key.selector}, and ${domain} knows that key`, add: null };
  if (dkim === 'temperror') return { standing: 'unknown', says: 'the name servers did not answer: check again later', add: null };
  return {
    standing: 'wrong',
    says: `${domain} does not know the key ${key.selector} yet, so nothing is signed with it. Put this there, and check again: it takes up to a day`,
    add: keyRecord(domain, key),
  };
}

const DOES = { none: 'let it through all the same', quarantine: 'put it aside as doubtful', reject: 'refuse it' } as const;

function whatToDo({ domain, dmarc }: DomainFacts): Line {
  if (dmarc.record === null || dmarc.policy === null)
    return {
      standing: 'weak',
      says: `${domain} does not say what to do with mail that only seems to come from it. Large providers want to hear it`,
      add: { name: `_dmarc.${domain}`, text: `v=DMARC1; p=none; rua=mailto:postmaster@${domain}` },
    };
  const does = DOES[dmarc.policy];
  if (dmarc.passes)
    return { standing: 'good', says: `a mail of this mailbox proves itself; of one that does not, ${domain} says: ${does}`, add: null };
  return {
    standing: dmarc.policy === 'none' ? 'weak' : 'wrong',
    says: `a mail of this mailbox does not prove itself, and of such ${domain} says: ${does}. One of the two above must be in order`,
    add: null,
  };
}

/** The three lines, in the order in which they are mended. */
export const domainLines = (facts: DomainFacts, key: SigningKey | null): readonly DomainLine[] => [
  { what: 'who may send', ...whoMaySend(facts) },
  { what: 'signature', ...signature(facts, key) },
  { what: 'what to do with others', ...whatToDo(facts) },
];
