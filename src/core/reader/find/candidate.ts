import type { Said } from '../said';

/** A value somebody states, with where it stands and what is peculiar to the way it is found. */
export interface Candidate {
  readonly value: string | number | boolean;
  readonly said: Said;
  /** its words in the sentence, `to` exclusive */
  readonly from: number;
  readonly to: number;
  /** measures of its own, named as the model names them, 0 to 1 */
  readonly marks: Readonly<Record<string, number>>;
}
