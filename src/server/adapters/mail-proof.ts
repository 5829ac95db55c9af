import dns from 'node:dns/promises';
import net from 'node:net';
import { domainOf, proofResult, type DomainFacts } from '../../core/sending';
import { isPrivateAddress } from '../net';
import type { Mail } from '../ports';

type Resolve = (name: string, kind: string) => Promise<string[] | string[][]>;

const nothing = (name: string): Error => Object.assign(new Error(`there is no ${name}`), { code: 'ENOTFOUND' });

/** Asks name servers. Names ending in `.example` are known to the stand-in (`host:port`), or to nobody. */
export function nameServers(standin: string | null): Resolve {
  const made = standin === null ? undefined : new dns.Resolver({ timeout: 2_000, tries: 2 });
  if (standin !== null) made?.setServers([standin]);
  const real = new dns.Resolver({ timeout: 4_000, tries: 2 });
  return async (name, kind) => {
    const isMadeUp = /(?:^|\.)example\.?$/i.test(name);
    if (isMadeUp && !made) throw nothing(name);
    return (await (isMadeUp && made ? made : real).resolve(name, kind)) as string[] | string[][];
  };
}

const POLICIES = ['none', 'quarantine', 'reject'] as const;

/** Looks at mails by what name servers say. */
export const mailProof =
  (resolve: Resolve): Mail['prove'] =>
  (raw, address, host) =>
    domainFacts(raw, address, host, resolve);

/** As the server of a reader would that gets it from `host`. */
async function domainFacts(raw: Uint8Array, address: string, host: string | null, resolve: Resolve): Promise<DomainFacts> {
  // Read only when somebody asks: it knows every public suffix there is.
  const { authenticate } = await import('mailauth');
  const numbers = host === null ? [] : net.isIP(host) === 0 ? await resolve(host, 'A').catch(() => []) : [host];
  const [ip = null] = (numbers as string[]).filter((number) => host?.endsWith('.example') === true || !isPrivateAddress(number));
  const { spf, dkim, dmarc } = await authenticate(Buffer.from(raw), {
    sender: address,
    // A mail without a sending server is looked at as from nowhere: only what the domain says counts then.
    ip: ip ?? '192.0.2.255',
    helo: host ?? 'localhost',
    resolver: resolve,
    disableArc: true,
    disableBimi: true,
    trustReceived: false,
  });
  const record = await spfRecord(domainOf(address), resolve);
  const policy = dmarc === false ? undefined : POLICIES.find((known) => known === dmarc.policy);
  return {
    domain: domainOf(address),
    host,
    ip,
    spf: { result: proofResult(spf === false ? undefined : spf.status.result), record },
    dkim: proofResult(dkim.results.find((result) => result.signingDomain === domainOf(address))?.status.result),
    dmarc: {
      record: dmarc === false ? null : (dmarc.rr ?? null),
      policy: policy ?? null,
      passes: dmarc !== false && dmarc.status.result === 'pass',
    },
  };
}

async function spfRecord(domain: string, resolve: Resolve): Promise<string | null> {
  const texts = (await resolve(domain, 'TXT').catch(() => [])) as string[][];
  return texts.map((parts) => parts.join('')).find((text) => /^v=spf1(?:\s|$)/i.test(text)) ?? null;
}
