/**
 * How often, and how much at once. Promises: nobody's calls, uploads or open streams take what others need; a caller is told how much
 * is left (RateLimit headers, draft-ietf-httpapi-ratelimit-headers) before being refused. Each web process counts for itself.
 */
export interface Pace {
  /** calls in a window */
  readonly calls: number;
  readonly seconds: number;
}

export interface Left {
  readonly allowed: boolean;
  readonly remaining: number;
  readonly resetSeconds: number;
}

/** Callers that are remembered at once; beyond it the longest unseen is forgotten. */
const REMEMBERED = 20_000;

/** Counts calls of each caller in windows that begin with the first call. */
export class Pacer {
  private readonly windows = new Map<string, { endsAt: number; used: number }>();

  constructor(
    private readonly pace: Pace,
    private readonly now: () => number,
  ) {}

  take(caller: string): Left {
    const now = this.now();
    let window = this.windows.get(caller);
    if (!window || window.endsAt <= now) window = { endsAt: now + this.pace.seconds * 1000, used: 0 };
    window.used += 1;
    this.windows.delete(caller);
    this.windows.set(caller, window);
    if (this.windows.size > REMEMBERED) {
      const oldest = this.windows.keys().next().value;
      if (oldest !== undefined) this.windows.delete(oldest);
    }
    return {
      allowed: window.used <= this.pace.calls,
      remaining: Math.max(0, this.pace.calls - window.used),
      resetSeconds: Math.ceil((window.endsAt - now) / 1000),
    };
  }
}

export const paceHeaders = (name: string, { calls, seconds }: Pace, left: Left): Readonly<Record<string, string>> => ({
  'ratelimit-policy': `"${name}";q=${calls};w=${seconds}`,
  ratelimit: `"${name}";r=${left.remaining};t=${left.resetSeconds}`,
  ...(left.allowed ? {} : { 'retry-after': String(left.resetSeconds) }),
});

/** So many at once for each, and so many in all. */
export class AtOnce {
  private readonly held = new Map<string, number>();
  private sum = 0;

  constructor(private readonly limits: { readonly each: number; readonly all: number }) {}

  /** What gives the place back; undefined when there is none. */
  enter(who: string): (() => void) | undefined {
    const mine = this.held.get(who) ?? 0;
    if (mine >= this.limits.each || this.sum >= this.limits.all) return undefined;
    this.held.set(who, mine + 1);
    this.sum += 1;
    let left = false;
    return () => {
      if (left) return;
      left = true;
      this.sum -= 1;
      const now = (this.held.get(who) ?? 1) - 1;
      if (now > 0) this.held.set(who, now);
      else this.held.delete(who);
    };
  }
}

export const PACES = {
  /** a token of the API, or a session of the interface, which asks more often */
  api: { calls: 1_200, seconds: 60 },
  session: { calls: 6_000, seconds: 60 },
  /** from one address without a sign-in: wrong tokens, sign-ins, forms, postings, answers */
  open: { calls: 600, seconds: 60 },
  signIn: { calls: 60, seconds: 60 },
} as const satisfies Readonly<Record<string, Pace>>;
export const AT_ONCE = { uploads: { each: 2, all: 6 }, streams: { each: 24, all: 500 }, forms: { each: 4, all: 12 } } as const;
