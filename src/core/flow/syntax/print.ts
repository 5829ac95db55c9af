import { never, printDuration } from '../../base';
import type { Addressee, AnswerType, Assignment, ClockIntake, FlowTree, Line, Question, Step, Wait, WaitFor } from './tree';

export interface PrintOptions {
  /** write the stable mark at the end of every line, as files that leave the house do */
  readonly marks: boolean;
}

/** The canonical text of a tree: parsing it gives the same tree, printing that gives the same text. */
export function printFlow(tree: FlowTree, options: PrintOptions = { marks: false }): string {
  const out: string[] = [];
  if (tree.name) out.push(`flow ${quote(tree.name.text)}`);
  if (tree.about) out.push(`about ${tree.about.text}`);
  for (const use of tree.uses) out.push(`uses ${use.what.text} ${use.name.text} = ${quote(use.value.text)}`);
  if (out.length > 0 && tree.lines.length > 0) out.push('');
  printLines(tree.lines, 0, options, out);
  for (const comment of tree.endComments) out.push(`// ${comment}`.trimEnd());
  return out.length === 0 ? '' : `${out.join('\n')}\n`;
}

export const quote = (text: string): string => `"${text.replace(/[\\"]/g, '\\$&')}"`;

function printLines(lines: readonly Line[], depth: number, options: PrintOptions, out: string[]): void {
  const pad = '  '.repeat(depth);
  const end = (mark: string): string => (options.marks && mark !== '' ? ` #${mark}` : '');
  for (const line of lines) {
    for (const comment of line.comments) out.push(`${pad}// ${comment}`.trimEnd());
    const [first = '', ...clauses] = stepRows(line.step);
    out.push(`${pad}${line.off && line.step.verb !== 'unknown' ? 'off: ' : ''}${first}${end(line.mark)}`);
    for (const clause of clauses) out.push(`${pad}${line.step.verb === 'unknown' ? '' : '  '}${clause}`);
    if (line.step.verb !== 'split') continue;
    for (const arm of line.step.arms) {
      for (const comment of arm.comments) out.push(`${pad}  // ${comment}`.trimEnd());
      out.push(`${pad}  ${arm.when ? `when ${feelText(arm.when.parsed.text)}` : 'else'}${end(arm.mark)}`);
      printLines(arm.lines, depth + 2, options, out);
    }
  }
}

const feelText = (text: string): string => text.trim();
const as = (name: { readonly text: string } | undefined): string => (name ? ` as ${name.text}` : '');
const setting = (made: Assignment): string => `set ${made.field.text} = ${feelText(made.value.parsed.text)}`;
const amount = (value: number, places = 0): string => (places > 0 ? value.toFixed(places) : String(value));
const within = (wait: Wait | undefined): string => (wait ? ` within ${printDuration(wait.duration)}` : '');

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

const questionText = (question: Question): string =>
  `${question.id.text}: ${answerTypeText(question.type)} ${quote(question.wording.text)}`;
const addresseeText = (who: Addressee): string => (who.kind === 'role' ? who.name.text : quote(who.name.text));
const limitText = (wait: Wait | undefined): string => (wait ? `, at most ${printDuration(wait.duration)}` : '');

/** Minutes since midnight as `09:00`. */
export function clockText(minute: number): string {
  return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
}

function waitText(until: WaitFor): string {
  switch (until.kind) {
    case 'while':
      return printDuration(until.length.duration);
    case 'clock':
      return `until ${clockText(until.time.minute)}${until.workingDay ? ' on a working day' : ''}${until.readerTime ? " in reader's time" : ''}`;
    case 'date':
      return `until ${feelText(until.date.parsed.text)}`;
    case 'reply':
      return `for reply to ${until.message.text}${limitText(until.atMost)}`;
    case 'condition':
      return `for ${feelText(until.when.parsed.text)}${limitText(until.atMost)}`;
    default:
      return never(until);
  }
}

const strokesText = ({ time, every, until, within }: ClockIntake): string => {
  if (!every) return `at ${clockText(time.minute)}${within ? ` within ${printDuration(within.duration)}` : ''}`;
  const from = time.minute === 0 && !until ? '' : ` from ${clockText(time.minute)}`;
  return `every ${printDuration(every.duration)}${from}${until ? ` to ${clockText(until.minute)}` : ''}`;
};
const clockIntakeText = (clock: ClockIntake): string => ` ${strokesText(clock)}${clock.workingDays ? ' on working days' : ''}`;

/** The rows of one step: its line, then its clauses without indentation. */
export function stepRows(step: Step): readonly string[] {
  switch (step.verb) {
    case 'take in':
      return [
        `take in from ${step.from.text}${step.name ? ` ${quote(step.name.text)}` : ''}${step.clock ? clockIntakeText(step.clock) : ''}${step.change ? ` of ${step.change.fields.map((field) => field.text).join(', ')}` : ''}`,
        ...[step.clock?.when, step.change?.when].flatMap((when) => (when ? [`when ${feelText(when.parsed.text)}`] : [])),
        ...(step.oncePer ? [`once per ${step.oncePer.text}`] : []),
      ];
    case 'keep':
      return [
        `keep when ${feelText(step.when.parsed.text)}`,
        ...(step.unless ? [`unless ${step.unless.map((screen) => screen.text).join(', ')}`] : []),
        ...(step.otherwise ? [`else ${setting(step.otherwise)}`] : []),
      ];
    case 'match':
      return [
        `match ${step.targets.map((target) => target.text).join(', ')}`,
        ...(step.askAbove ? [`ask above ${amount(step.askAbove.value, 2)}`] : []),
        ...(step.sameAbove ? [`same above ${amount(step.sameAbove.value, 2)}`] : []),
      ];
    case 'read': {
      const limits = [
        step.maxPages && `${amount(step.maxPages.value)} pages`,
        step.maxCost && `${amount(step.maxCost.value, 2)} EUR`,
      ].filter((limit) => limit !== undefined);
      return [
        `read ${step.target.text} from ${step.places.map((place) => place.text).join(', ')}${as(step.as)}`,
        ...step.questions.map(questionText),
        ...(limits.length > 0 ? [`at most ${limits.join(', ')}`] : []),
        ...(step.noOlder ? [`no older than ${printDuration(step.noOlder.duration)}`] : []),
      ];
    }
    case 'score':
      return [`score ${step.target.text} with ${quote(step.scorecard.text)}${as(step.as)}`];
    case 'split':
      return ['split'];
    case 'look up':
      return [`look up ${step.field.text} with ${quote(step.chain.text)}`];
    case 'open':
      return [
        step.what === 'deal'
          ? `open deal in ${quote(step.pipeline.text)} at ${quote(step.stage.text)}${as(step.as)}`
          : `open application for ${quote(step.opening.text)} at ${quote(step.stage.text)}${as(step.as)}`,
      ];
    case 'assign':
      return [`assign ${step.what ? `${step.what.text} ` : ''}in turn among ${quote(step.team.text)}`];
    case 'set':
      return [setting(step.assignment)];
    case 'note':
      return [`note ${feelText(step.text.parsed.text)}`];
    case 'write':
      return [`write ${step.channel.text} ${quote(step.template.text)}${as(step.as)}`];
    case 'ask':
      return [
        `ask ${quote(step.who.text)} to approve ${step.message.text}${within(step.within)}`,
        ...(step.otherwise
          ? [
              step.otherwise.does === 'stop'
                ? `otherwise stop ${quote(step.otherwise.text.text)}`
                : `otherwise tell ${step.otherwise.who.text} ${quote(step.otherwise.text.text)}`,
            ]
          : []),
      ];
    case 'send':
      return [`send ${step.message.text}${step.sameThread ? ' in the same thread' : ''}`];
    case 'follow up':
      return [`follow up with ${quote(step.plan.text)}`];
    case 'wait':
      return [`wait ${waitText(step.for)}${as(step.as)}`];
    case 'gather':
      return [`gather ${amount(step.count.value)} or ${printDuration(step.atMost.duration)}${as(step.as)}`];
    case 'sort':
      return [
        `sort ${feelText(step.text.parsed.text)}${as(step.as)}`,
        ...step.labels.map(
          (label) =>
            `${label.name.text}: ${quote(label.meaning.text)}${label.examples.length > 0 ? ` like ${label.examples.map((example) => quote(example.text)).join(', ')}` : ''}`,
        ),
      ];
    case 'pick out':
      return [
        `pick out ${step.document ? `${step.document.text} ` : ''}from ${feelText(step.text.parsed.text)}${as(step.as)}`,
        ...step.questions.map(questionText),
      ];
    case 'move':
      return [`move ${step.what.text} to ${quote(step.stage.text)}`];
    case 'tell':
      return [
        `tell ${addresseeText(step.who)}${step.byEmail ? ' by email' : ''} ${feelText(step.text.parsed.text)}`,
        ...(step.paper ? [`with ${step.paper.text}`] : []),
      ];
    case 'hand over':
      return [
        `hand over to ${quote(step.to.text)}${step.answer ? ` and wait, at most ${printDuration(step.answer.atMost.duration)}` : ''}${as(step.as)}`,
        ...(step.answer?.parts ?? []).map((part) => `${part.id.text}: ${answerTypeText(part.type)}`),
      ];
    case 'call':
      return [`call with ${quote(step.script.text)}${as(step.as)}`];
    case 'book':
      return [`book meeting with ${quote(step.team.text)}${within(step.within)}${as(step.as)}`];
    case 'prepare':
      return [`prepare ${quote(step.document.text)}${as(step.as)}`];
    case 'stop':
      return [step.reason ? `stop ${quote(step.reason.text)}` : 'stop'];
    case 'unknown':
      return step.text.split('\n');
    default:
      return never(step);
  }
}
