/** How parts of lines are written, wherever they stand. */
import { printDuration } from '../../base';
import type { AnswerType, Assignment, Expr, Question, Wait } from './tree';

export const quote = (text: string): string => `"${text.replace(/[\\"]/g, '\\$&')}"`;

/** An expression as it stands. */
export const feelText = (expr: Expr): string => expr.parsed.text.trim();
/** ` as name`, or nothing. */
export const asText = (name: { readonly text: string } | undefined): string => (name ? ` as ${name.text}` : '');
export const assignmentText = (made: Assignment): string => `set ${made.field.text} = ${feelText(made.value)}`;
/** `, at most 8 days`, or nothing. */
export const limitText = (wait: Wait | undefined): string => (wait ? `, at most ${printDuration(wait.duration)}` : '');

export function answerTypeText(type: AnswerType): string {
  switch (type.kind) {
    case 'number':
      return type.unit ? `number in ${type.unit}` : type.kind;
    case 'money':
      return `money in ${type.currency}`;
    case 'choice':
      return `one of ${type.options.map(quote).join(', ')}`;
    default:
      return type.kind;
  }
}

export const questionText = (question: Question): string =>
  `${question.id.text}: ${answerTypeText(question.type)} ${quote(question.wording.text)}`;

/** Minutes since midnight as `09:00`. */
export function clockText(minute: number): string {
  return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
}
