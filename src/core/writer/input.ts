import type { FeelScope } from '../feel';
import type { LineFact } from './personal';
import type { MessageTemplate } from './template';

/** Everything a message is made from. */
export interface ComposeInput {
  readonly template: MessageTemplate;
  /** what slots may name: record fields at the top, company under `company`, the sender under `sender` */
  readonly scope: FeelScope;
  /** `reach`: where the text's channel reaches them; null: nowhere */
  readonly recipient: { readonly name: string; readonly reach: string | null };
  readonly facts: readonly LineFact[];
  /** personal lines of the last ten messages of this template */
  readonly recentLines: readonly string[];
  readonly doNotContact: boolean;
  /** what the business never says, in no message; left out: nothing is looked for */
  readonly neverSay?: readonly string[];
  /** what makes the choice of wording the reader's own: the person's id */
  readonly seed: string;
}
