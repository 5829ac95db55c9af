import { printValue } from '../../fields';
import type { FeelValue } from '../../feel';
import type { Instruction } from '../../flow/plan';
import type { Run } from '../run';

/** A value as a journal says it. */
export function shown(value: FeelValue): string {
  return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' || value === null
    ? printValue(value)
    : JSON.stringify(value);
}

export const scalar = (value: FeelValue): string | number | boolean | null =>
  typeof value === 'object' && value !== null ? JSON.stringify(value) : value;

/** What a line calls by a name, when it is a deal or an application: the trip's own deal, or one opened above. */
export function openedAs(name: string, run: Run): { readonly kind: 'deal' | 'application'; readonly id: string } | undefined {
  const held = name === 'deal' && run.plan.about === 'deal' ? run.view.deal : run.vars[name];
  if (typeof held?.id !== 'string') return undefined;
  return { kind: 'opening' in held ? 'application' : 'deal', id: held.id };
}

/** Says a value of a field as the flow's own word: of the record, or of what was opened under a name. */
export function setField(run: Run, path: string, value: FeelValue, line: Instruction): void {
  const [name = '', key] = path.split('.');
  const opened = key === undefined || (name === 'deal' && run.plan.about === 'deal') ? undefined : openedAs(name, run);
  const fact = run.record(path, scalar(value), 'flow', `${run.plan.name}, line ${line.number}`, opened ? { record: opened } : {});
  if (!fact) return;
  run.commands.push({ kind: 'record facts', mark: line.mark, facts: [fact] });
  if (opened && key !== undefined) run.seeOpened(name, opened, key, scalar(value));
  else run.see(path, value);
}
