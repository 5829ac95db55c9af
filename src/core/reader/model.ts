import type { Form } from './asked';
import type { Features } from './features';

/** Weights by name; those of one form of question are named `form: name` and come on top of the common ones. */
export type Weights = Readonly<Record<string, number>>;

export interface Model {
  readonly weights: Weights;
  /** by form: log-odds of the model to log-odds that hold (Platt 1999): `slope × x + shift` */
  readonly calibration: Readonly<Record<string, { readonly slope: number; readonly shift: number }>>;
  /** least confidence with which an answer is taken, where a question says nothing else */
  readonly least: number;
}

/** Forms whose statements are weighed alike. */
export function familyOf(form: Form): string {
  switch (form) {
    case 'quantity':
    case 'money':
      return 'amount';
    case 'date':
      return 'year';
    case 'text':
    case 'contact':
      return 'text';
    default:
      return form;
  }
}

export function scoreOf(weights: Weights, family: string, features: Features): number {
  let sum = 0;
  for (const name in features) {
    const value = features[name] ?? 0;
    if (value !== 0) sum += value * ((weights[name] ?? 0) + (weights[`${family}: ${name}`] ?? 0));
  }
  return sum;
}

/**
 * How probable each candidate is to be stated as the answer, with “nothing is stated” as one of the choices (conditional logit,
 * McFadden 1974): exp(score) over the sum of all and 1.
 */
export function sharesOf(scores: readonly number[]): readonly number[] {
  const top = Math.max(0, ...scores);
  const parts = scores.map((score) => Math.exp(score - top));
  const total = parts.reduce((sum, part) => sum + part, Math.exp(-top));
  return parts.map((part) => part / total);
}

export function calibrated(model: Model, family: string, share: number): number {
  const { slope, shift } = model.calibration[family] ?? model.calibration.all ?? { slope: 1, shift: 0 };
  const p = Math.min(0.999, Math.max(0.001, share));
  return 1 / (1 + Math.exp(-(slope * Math.log(p / (1 - p)) + shift)));
}
