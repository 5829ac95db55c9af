import type { Cursor } from './cursor';
import type { AnswerType, Assignment, Question } from './tree';

/** For verbs without clauses. */
export function refuse(clauses: readonly Cursor[], verb: string): void {
  for (const clause of clauses) clause.say(`“${verb}” takes no such clause`, clause.row);
}

/** `status = "incomplete"` */
export function assignment(row: Cursor): Assignment | undefined {
  const field = row.wantPath('the field to set');
  if (!field || !row.want('=', 'set status = "incomplete"')) return undefined;
  const value = row.wantFeel('the value');
  return value && { field, value };
}

export function answerType(row: Cursor): AnswerType | undefined {
  if (row.take('yes', '/', 'no')) return { kind: 'yes/no' };
  if (row.take('text')) return { kind: 'text' };
  if (row.take('year')) return { kind: 'year' };
  if (row.take('date')) return { kind: 'date' };
  if (row.take('list')) return { kind: 'list' };
  if (row.take('one', 'of')) return choice(row);
  if (row.take('money')) {
    const currency = row.want('in', 'money in EUR') ? row.wantPath('the currency') : undefined;
    return currency && { kind: 'money', currency: currency.text };
  }
  if (!row.take('number'))
    return row.say('say what kind of answer it is: number in ha, money in EUR, text, list, one of "a", "b", date, year or yes/no');
  if (!row.take('in')) return { kind: 'number' };
  const unit = row.wantPath('the unit');
  return unit && { kind: 'number', unit: unit.text };
}

/** `one of "gas", "wood", "other"` with the question behind it: the last name in quotes is the question. */
function choice(row: Cursor): AnswerType | undefined {
  const options: string[] = [];
  do {
    const option = row.wantName('one of the choices');
    if (!option) return undefined;
    options.push(option.text);
  } while (row.take(','));
  return { kind: 'choice', options };
}

/** `vans: number "How many vans …?"` */
export function question(row: Cursor): Question | undefined {
  const id = row.wantPath('the name of the answer');
  if (!id || !row.want(':', 'vans: number "How many vans …?"')) return undefined;
  const type = answerType(row);
  const wording = type && row.wantName('the question');
  if (!type || !wording) return undefined;
  row.end();
  return { from: id.from, to: wording.to, id, type, wording };
}
