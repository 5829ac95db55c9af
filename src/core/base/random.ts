/** A seeded source of chance: the same seed gives the same draws on every machine. */
export interface Chance {
  /** uniform in [0, 1) */
  next(): number;
  /** uniform whole number in [0, n) */
  below(n: number): number;
  /** standard normal */
  normal(): number;
  /** Beta(a, b), a and b above 0 */
  beta(a: number, b: number): number;
  /** how many of n succeed with chance p */
  binomial(n: number, p: number): number;
}

/** Mulberry32 for the bits; Marsaglia–Tsang (2000) for gamma draws, from which beta draws are made. */
export function chance(seed: number): Chance {
  let a = seed >>> 0;
  const next = (): number => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  const gamma = (shape: number): number => {
    if (shape < 1) return gamma(shape + 1) * (1 - next()) ** (1 / shape);
    const d = shape - 1 / 3;
    const c = 1 / Math.sqrt(9 * d);
    for (;;) {
      const x = normal();
      const v = (1 + c * x) ** 3;
      if (v <= 0) continue;
      if (Math.log(1 - next()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
    }
  };
  const rare = (n: number, p: number): number => {
    let hits = 0;
    for (let i = jump(p); i < n; i += 1 + jump(p)) hits++;
    return hits;
  };
  const jump = (p: number): number => Math.floor(Math.log(1 - next()) / Math.log(1 - p));
  return {
    next,
    below: (n) => Math.floor(next() * n),
    normal,
    beta: (alpha, beta) => {
      const [x, y] = [gamma(alpha), gamma(beta)];
      return x / (x + y);
    },
    binomial: (n, p) => {
      if (p <= 0 || n <= 0) return 0;
      if (p >= 1) return n;
      // For many the normal distribution is as good.
      if (n * p * (1 - p) > 25) return Math.max(0, Math.min(n, Math.round(n * p + Math.sqrt(n * p * (1 - p)) * normal())));
      // Jumps from one hit to the next (geometric gaps), so that rare hits among many cost little.
      if (p > 0.5) return n - rare(n, 1 - p);
      return rare(n, p);
    },
  };
}
