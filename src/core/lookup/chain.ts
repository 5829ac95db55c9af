import { z } from 'zod';
import { fold, type DeepReadonly } from '../base';
import { readTyped } from '../fields';

export const chainSchema = z.object({
  name: z.string().min(1),
  field: z.string().min(1),
  providers: z
    .array(
      z.object({
        name: z.string().min(1),
        priceMicro: z.number().int().nonnegative(),
        /** calls a minute, over all workers */
        perMinute: z.number().positive().optional(),
        /** calls at the same time, over all workers */
        atOnce: z.number().int().min(1).max(64).optional(),
        dayBudgetMicro: z.number().int().nonnegative().optional(),
      }),
    )
    .min(1),
});
export type LookupChain = DeepReadonly<z.infer<typeof chainSchema>>;

/** What one provider said. Money is in millionths of a euro. */
export interface Asked {
  readonly provider: string;
  readonly outcome: 'usable' | 'not usable' | 'nothing' | 'failed';
  readonly value: string | null;
  readonly why: string;
  readonly costMicro: number;
  readonly tookMs: number;
  /** the answer was kept from an earlier question: nothing was asked or paid */
  readonly kept?: boolean;
}

export interface UsabilityInput {
  readonly value: string;
  readonly personName: string;
  /** the company's own host, when it is known */
  readonly companyHost: string | null;
  readonly confidence: number;
}

const SHARED = new Set(['info', 'office', 'contact', 'sales', 'mail', 'post', 'hello', 'admin', 'kontakt', 'kantoor']);
const SURE_ENOUGH = 0.6;

/** Whether a work e-mail may be used: well formed, at the company's own host, of this person, and sure enough. */
export function usable(input: UsabilityInput): { readonly ok: boolean; readonly why: string } {
  const read = readTyped({ type: 'e-mail' }, input.value);
  if (!read.ok || typeof read.value !== 'string') return { ok: false, why: 'not a well-formed address' };
  const [local = '', host = ''] = read.value.split('@');
  if (SHARED.has(local)) return { ok: false, why: `${local}@ is a shared mailbox` };
  if (input.companyHost !== null && host !== input.companyHost && !host.endsWith(`.${input.companyHost}`))
    return { ok: false, why: `${host} is not the company's host` };
  const names = fold(input.personName)
    .split(/[^a-z]+/)
    .filter((part) => part.length > 1);
  const squeezed = fold(local).replace(/[^a-z]/g, '');
  if (!names.some((name) => squeezed.includes(name) || name.startsWith(squeezed)))
    return { ok: false, why: 'the address does not carry the name' };
  if (input.confidence < SURE_ENOUGH) return { ok: false, why: `the provider is only ${Math.round(input.confidence * 100)} % sure` };
  return { ok: true, why: 'well formed, own host, carries the name' };
}

/** The provider to ask next, or undefined when a usable answer is there or all were asked. */
export function nextProvider(chain: LookupChain, asked: readonly Asked[]): LookupChain['providers'][number] | undefined {
  if (asked.some((entry) => entry.outcome === 'usable')) return undefined;
  return chain.providers.find((provider) => !asked.some((entry) => entry.provider === provider.name));
}
