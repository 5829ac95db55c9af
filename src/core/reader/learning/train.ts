import type { Features } from '../features';
import type { Weights } from '../model';
import priors from './priors.json';

/** What one expects before having seen a single site: what examples are few for stays there. */
export const PRIORS: Weights = priors;

/** One question before one site whose answer is known. */
export interface Case {
  readonly family: string;
  readonly candidates: readonly Features[];
  /** which of them state the right answer */
  readonly right: readonly boolean[];
  /** saying nothing is right (too) */
  readonly silence: boolean;
  readonly weight: number;
}

const STEPS = 400;
const RATE = 0.05;

/**
 * Weights that make the right answers probable: maximum of the log-likelihood of a conditional logit, less `ridge` × the squares of what
 * leaves the prior (for one form `own` times as strongly, so that few examples move little), by Adam (Kingma and Ba 2015). The same cases give the same
 * weights.
 */
export function fit(cases: readonly Case[], ridge = 0.02, own = 2, steps = STEPS): Weights {
  const names = new Map<string, number>();
  const index = (name: string): number => {
    let at = names.get(name);
    if (at === undefined) names.set(name, (at = names.size));
    return at;
  };
  const encoded = cases.map((entry) => ({
    ...entry,
    rows: entry.candidates.map((features) => {
      const at: number[] = [];
      const value: number[] = [];
      for (const [name, x] of Object.entries(features)) {
        if (x === 0) continue;
        at.push(index(name), index(`${entry.family}: ${name}`));
        value.push(x, x);
      }
      return { at, value };
    }),
  }));
  for (const name of Object.keys(PRIORS)) index(name);
  const size = names.size;
  const prior = Float64Array.from([...names.keys()].map((name) => PRIORS[name] ?? 0));
  const w = Float64Array.from(prior);
  const m = new Float64Array(size);
  const v = new Float64Array(size);
  const gradient = new Float64Array(size);
  const strength = Float64Array.from(
    [...names.keys()].map((name) => (name.endsWith('bias') ? 0.1 : 1) * (name.includes(': ') ? own : 1) * ridge),
  );
  const total = cases.reduce((sum, entry) => sum + entry.weight, 0);
  for (let step = 1; step <= steps; step++) {
    gradient.fill(0);
    for (const { rows, right, silence, weight } of encoded) {
      const scores = rows.map(({ at, value }) => at.reduce((sum, k, i) => sum + (w[k] ?? 0) * (value[i] ?? 0), 0));
      const top = Math.max(0, ...scores);
      const parts = scores.map((score) => Math.exp(score - top));
      const none = Math.exp(-top);
      const all = parts.reduce((sum, part) => sum + part, none);
      const good = parts.reduce((sum, part, i) => sum + (right[i] ? part : 0), silence ? none : 0);
      if (good === 0) continue;
      for (const [i, { at, value }] of rows.entries()) {
        const part = parts[i] ?? 0;
        const pull = ((right[i] ? part / good : 0) - part / all) * weight;
        if (Math.abs(pull) < 1e-9) continue;
        for (let k = 0; k < at.length; k++) gradient[at[k] ?? 0] = (gradient[at[k] ?? 0] ?? 0) + pull * (value[k] ?? 0);
      }
    }
    for (let k = 0; k < size; k++) {
      const g = (gradient[k] ?? 0) / total - (strength[k] ?? 0) * ((w[k] ?? 0) - (prior[k] ?? 0)) * 0.1;
      m[k] = 0.9 * (m[k] ?? 0) + 0.1 * g;
      v[k] = 0.999 * (v[k] ?? 0) + 0.001 * g * g;
      w[k] = (w[k] ?? 0) + (RATE * ((m[k] ?? 0) / (1 - 0.9 ** step))) / (Math.sqrt((v[k] ?? 0) / (1 - 0.999 ** step)) + 1e-8);
    }
  }
  return Object.fromEntries(
    [...names].map(([name, k]) => [name, Math.round((w[k] ?? 0) * 1000) / 1000] as const).filter(([, value]) => value !== 0),
  );
}

/** A step no longer than the curve can be trusted for. */
const bounded = (step: number): number => Math.max(-0.3, Math.min(0.3, step));

/** An answer given: how sure, whether right, and how much it counts. */
export interface Told {
  readonly share: number;
  readonly right: boolean;
  readonly weight: number;
}

/** Platt's two numbers, by Newton's method on the calibration of log-odds; cases: share given and whether it was right. */
export function calibrate(pairs: readonly Told[]): { readonly slope: number; readonly shift: number } {
  let slope = 1;
  let shift = 0;
  const logit = (p: number): number => Math.log(Math.min(0.999, Math.max(0.001, p)) / (1 - Math.min(0.999, Math.max(0.001, p))));
  for (let step = 0; step < 200; step++) {
    let [gs, gb, hss, hsb, hbb] = [-0.5 * (slope - 1), -0.05 * shift, 0.5, 0, 0.05];
    for (const { share, right, weight } of pairs) {
      const x = logit(share);
      const p = 1 / (1 + Math.exp(-(slope * x + shift)));
      const e = (right ? 1 : 0) - p;
      const q = p * (1 - p);
      gs += weight * e * x;
      gb += weight * e;
      hss += weight * q * x * x;
      hsb += weight * q * x;
      hbb += weight * q;
    }
    const det = hss * hbb - hsb * hsb;
    if (Math.abs(det) < 1e-9) break;
    slope += bounded((gs * hbb - gb * hsb) / det);
    shift += bounded((gb * hss - gs * hsb) / det);
  }
  return { slope: Math.max(0.2, Math.round(slope * 1000) / 1000), shift: Math.round(shift * 1000) / 1000 };
}
