import { readTyped } from '../fields';
import { fold } from '../base';
import type { ComposeInput } from './input';
import { neverSaidIn } from './never-said';
import { localeOf, type PersonalLine } from './personal';
import { channelOf, NO_WAY } from './channels';

/** One rule a message must pass before it can leave. `says` is the sentence shown when it fails. */
export interface MessageCheck {
  readonly id:
    | 'slot left'
    | 'fact missing'
    | 'recipient'
    | 'too long'
    | 'same line'
    | 'do not contact'
    | 'wrong name'
    | 'figure without fact'
    | 'may not say'
    | 'not held';
  readonly ok: boolean;
  readonly says: string;
}

interface Draft extends ComposeInput {
  readonly subject: string;
  readonly body: string;
  readonly line: PersonalLine | undefined;
}

const LEFT_OVER = /\{[^{}]{0,200}\}|\[[A-Z _]{3,}\]|\bundefined\b|\bnull\b/;

/** Every check, passed or not, in a fixed order: the reviewer sees what was looked at. */
export function checkMessage(draft: Draft): readonly MessageCheck[] {
  const whole = `${draft.subject}\n${draft.body}`;
  const left = LEFT_OVER.exec(whole)?.[0];
  const channel = channelOf(draft.template);
  const { reach } = draft.recipient;
  const valid = reach !== null && (channel !== 'e-mail' || readTyped({ type: 'e-mail' }, reach).ok);
  const limit = draft.template.maxLength;
  const needsLine = draft.template.personal?.required === true;
  // What a colleague has before them on the phone is read by nobody else.
  const repeated = channel !== 'call' && draft.line !== undefined && draft.recentLines.includes(draft.line.text);
  const greeted = /^(?:hi|hello|dear|hallo|hola|beste|bonjour|guten tag|goedendag|buenos días|cześć)\s+([\p{L}'’-]+)/iu.exec(
    draft.body,
  )?.[1];
  const known = fold(draft.recipient.name);
  // What a slot says for want of a name is nobody's name.
  const forWant = greeted !== undefined && draft.template.body.includes(`or "${greeted}`);
  const wrongName = greeted !== undefined && !forWant && !/^(there|all|team|reader)$/i.test(greeted) && !known.includes(fold(greeted));
  const loose = looseFigure(draft);
  const never = neverSaidIn(whole, draft.neverSay ?? []);
  return [
    {
      id: 'recipient',
      ok: valid,
      says: reach === null ? NO_WAY[channel] : `“${reach}” is not an address mail can be sent to`,
    },
    { id: 'do not contact', ok: !draft.doNotContact, says: `${draft.recipient.name} is on the do-not-contact list` },
    { id: 'slot left', ok: left === undefined, says: `“${left ?? ''}” was not filled: the value is missing and the slot has no fallback` },
    { id: 'wrong name', ok: !wrongName, says: `it greets “${greeted ?? ''}”, the reader is ${draft.recipient.name}` },
    { id: 'fact missing', ok: !needsLine || draft.line !== undefined, says: 'no fact is known that the personal line could rest on' },
    { id: 'figure without fact', ok: loose === undefined, says: `the personal line says “${loose ?? ''}” and no fact does` },
    { id: 'same line', ok: !repeated, says: 'the personal line is the same as in one of the last ten messages' },
    { id: 'too long', ok: draft.body.length <= limit, says: `${draft.body.length} characters, ${limit} are allowed` },
    ...(draft.neverSay && draft.neverSay.length > 0
      ? [{ id: 'may not say' as const, ok: never === undefined, says: `it says “${never ?? ''}”, which we never say` }]
      : []),
  ];
}

/** A figure in the personal line that stands neither in the fact's value nor in its quote. */
function looseFigure(draft: Draft): string | undefined {
  if (!draft.line) return undefined;
  const { text, fact } = draft.line;
  const backed = `${typeof fact.value === 'number' ? `${fact.value} ${fact.value.toLocaleString(localeOf(draft.template.language), { maximumFractionDigits: 1 })}` : String(fact.value)} ${fact.quote ?? ''}`;
  return (text.match(/\d+(?:[.,]\d+)*/g) ?? []).find((figure) => !backed.includes(figure));
}
