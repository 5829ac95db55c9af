import type { Cursor } from './cursor';
import { NAME } from './cursor';
import { refuse, type ReadStep } from './clauses';
import type { Wait, WaitFor } from './tree';

/** `, at most 8 days`, in the row or below it. */
function atMost(row: Cursor, clauses: readonly Cursor[]): { readonly atMost?: Wait } {
  for (const clause of [row, ...clauses]) {
    clause.take(',');
    const limit = clause.take('at', 'most') ? clause.wantDuration() : undefined;
    if (clause !== row) clause.end();
    if (limit) return { atMost: limit };
  }
  return {};
}

function waitFor(row: Cursor, clauses: readonly Cursor[]): WaitFor | undefined {
  if (row.take('until')) {
    if (row.peek()?.kind !== 'Number') {
      const date = row.wantFeel('the day to wait for');
      return date && { kind: 'date', date };
    }
    const time = row.wantClock();
    const workingDay = row.take('on', 'a', 'working', 'day') !== undefined;
    const readerTime = row.take('in') !== undefined && row.takeReaderTime();
    return time && { kind: 'clock', time, workingDay, readerTime };
  }
  if (!row.take('for')) {
    const length = row.wantDuration();
    return length && { kind: 'while', length };
  }
  if (row.take('reply')) {
    const message = row.want('to', 'wait for reply to opener, at most 8 days') && row.wantPath('the message they may answer');
    return message && { kind: 'reply', message, ...atMost(row, clauses) };
  }
  const when = row.wantFeel('what to wait for', [
    [',', 'at', 'most'],
    ['as', NAME],
  ]);
  return when && { kind: 'condition', when, ...atMost(row, clauses) };
}

const wait: ReadStep<'wait'> = (row, clauses) => {
  const until = waitFor(row, clauses);
  if (until?.kind !== 'reply' && until?.kind !== 'condition') refuse(clauses, 'wait');
  const as = row.asName();
  return until && { verb: 'wait', for: until, ...(as && { as }) };
};

const gather: ReadStep<'gather'> = (row, clauses) => {
  refuse(clauses, 'gather');
  const count = row.wantNumber('how many to gather');
  if (!count || !row.want('or', 'gather 50 or 1 day')) return undefined;
  const limit = row.wantDuration();
  const as = row.asName();
  return limit && { verb: 'gather', count, atMost: limit, ...(as && { as }) };
};

export const READ_WAIT: { readonly wait: ReadStep<'wait'>; readonly gather: ReadStep<'gather'> } = { wait, gather };
