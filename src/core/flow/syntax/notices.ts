import type { Cursor } from './cursor';
import { answerType, type ReadStep } from './clauses';
import type { Addressee, AnswerPart, StepOf } from './tree';

/** Whose record it is, not whose workspace. */
export const ITS_OWNER = 'its owner';

function addressee(row: Cursor): Addressee | undefined {
  if (row.peek()?.kind === 'String') {
    const name = row.wantName('a person, a team or a webhook');
    return name && { kind: 'named', name };
  }
  const its = row.take('its', 'owner');
  if (its) return { kind: 'role', name: { from: its.from, to: its.to, text: ITS_OWNER } };
  const name = row.wantPath('whom to tell (owner, its owner, or a name in quotes)');
  return name && { kind: 'role', name };
}

/** `tell owner by email "…"`; the text may be a formula, and `with paper` below it sends a prepared document along. */
const tell: ReadStep<'tell'> = (row, clauses) => {
  let paper: StepOf<'tell'>['paper'];
  for (const clause of clauses) {
    if (clause.take('with')) {
      paper = clause.wantPath('the document that goes along');
      clause.end();
    } else clause.say('below “tell” only with … may stand', clause.row);
  }
  const who = addressee(row);
  if (!who) return undefined;
  const byEmail = row.take('by', 'email') !== undefined;
  const text = row.wantFeel('what to tell them');
  return text && { verb: 'tell', who, byEmail, text, ...(paper && { paper }) };
};

function part(row: Cursor): AnswerPart | undefined {
  const id = row.wantPath('the name of the part');
  if (!id || !row.want(':', 'approved: yes/no')) return undefined;
  const type = answerType(row);
  row.end();
  return type && { from: id.from, to: row.row.to, id, type };
}

/** `hand over to "Warehouse" and wait, at most 2 hours as slot`, with the parts of the answer below. */
const handOver: ReadStep<'hand over'> = (row, clauses) => {
  if (!row.want('to', 'hand over to "Warehouse"')) return undefined;
  const to = row.wantName('the webhook');
  if (!to) return undefined;
  let answer: StepOf<'hand over'>['answer'];
  if (row.take('and', 'wait')) {
    row.take(',');
    const atMost = row.want('at', 'and wait, at most 2 hours') && row.want('most', 'at most 2 hours') ? row.wantDuration() : undefined;
    const parts = clauses.map(part).filter((made) => made !== undefined);
    if (!atMost) return undefined;
    answer = { atMost, parts };
  } else for (const clause of clauses) clause.say('parts of an answer need “and wait, at most …” on the line above', clause.row);
  const as = row.asName();
  return { verb: 'hand over', to, ...(answer && { answer }), ...(as && { as }) };
};

export const READ_NOTICE: { readonly tell: ReadStep<'tell'>; readonly 'hand over': ReadStep<'hand over'> } = {
  tell,
  'hand over': handOver,
};
