import { z } from 'zod';
import { readTyped, type Catalogue, type FactValue, type FieldType } from '../fields';
import { compileFeel, feelPaths, parseFeel } from '../feel';
import { isPhotographedPage } from './picture';
import { targetField, targetSchema, type Target } from './guess';

export const QUESTION_KINDS = ['text', 'long text', 'choice', 'number', 'date', 'e-mail', 'phone', 'file', 'consent'] as const;
export type QuestionKind = (typeof QUESTION_KINDS)[number];
/** What files a question may take, told apart by their content. */
export const FILE_KINDS = ['pdf', 'docx', 'text', 'picture'] as const;
export type FileKind = (typeof FILE_KINDS)[number];
/** As people are told of them. */
export const FILE_KIND_NAMES: Readonly<Record<FileKind, string>> = {
  pdf: 'PDF',
  docx: 'Word (DOCX)',
  text: 'plain text',
  picture: 'photographed page (PNG, JPEG)',
};

const ID = /^[a-z][a-z0-9_]{0,39}$/;
const MAX_ANSWER = 5_000;

const questionSchema = z.object({
  id: z.string().regex(ID, 'a name of small letters, figures and _'),
  label: z.string().min(1).max(300),
  help: z.string().max(300).default(''),
  kind: z.enum(QUESTION_KINDS),
  /** of a number: as the field has it */
  unit: z.string().max(10).optional(),
  /** of a choice */
  options: z.array(z.string().min(1).max(120)).max(60).optional(),
  /** of a file */
  accepts: z.array(z.enum(FILE_KINDS)).optional(),
  required: z.boolean().default(false),
  /** FEEL over earlier answers; shown when it holds */
  when: z.string().max(300).default(''),
  /** the field its answer goes to; null: kept with the entry alone */
  fills: targetSchema.nullable().default(null),
});
export type FormQuestion = z.infer<typeof questionSchema>;

export const formSchema = z.object({
  title: z.string().min(1).max(120),
  intro: z.string().max(1_000).default(''),
  pages: z
    .array(z.object({ title: z.string().max(120).default(''), questions: z.array(questionSchema).max(40) }))
    .min(1)
    .max(10),
  button: z.string().min(1).max(40).default('Send'),
  /** sites in whose pages it may stand; none: it is opened by its own address only */
  embedOn: z
    .array(z.string().regex(/^https?:\/\/[a-z0-9.-]{1,253}(?::\d{1,5})?$/, 'an address such as https://www.my-firm.example'))
    .max(20)
    .default([]),
  thanks: z.string().min(1).max(1_000).default('Thank you. We have received what you sent.'),
});
export type Form = z.infer<typeof formSchema>;

export interface FormProblem {
  /** empty: of the form as a whole */
  readonly question: string;
  readonly says: string;
}

export const questionsOf = (form: Form): readonly FormQuestion[] => form.pages.flatMap((page) => page.questions);

/** What is wrong with a form as it is built: names used twice, conditions that cannot be read or look ahead, nobody to reach. */
export function checkForm(form: Form, fields: Catalogue): readonly FormProblem[] {
  const out: FormProblem[] = [];
  const above = new Set<string>();
  const filled = new Set<Target>();
  for (const question of questionsOf(form)) {
    const say = (says: string): number => out.push({ question: question.id, says });
    if (above.has(question.id)) say(`two questions are called “${question.id}”`);
    if (question.kind === 'choice' && (question.options ?? []).length < 2) say('a choice needs at least two options');
    if (question.fills !== null && question.fills !== 'note' && question.fills !== 'leave out') {
      if (!targetField(question.fills, fields)) say(`there is no field ${question.fills}: make it under Settings, or let it fill another`);
      if (filled.has(question.fills)) say(`another question fills ${question.fills} already`);
      filled.add(question.fills);
    }
    if (question.when !== '') {
      const parsed = parseFeel(question.when);
      const [problem] = parsed.problems;
      const ahead = (parsed.expr ? feelPaths(parsed.expr) : []).map(([first = '']) => first).find((name) => !above.has(name));
      if (problem || !parsed.expr) say(`the condition cannot be read: ${problem?.message ?? 'nothing is said'}`);
      else if (ahead !== undefined) say(`the condition speaks of “${ahead}”, which no question above asks`);
    }
    above.add(question.id);
  }
  if (!filled.has('person.name') && !filled.has('person.email') && !filled.has('person.last_name'))
    out.push({ question: '', says: 'no question fills a name or an e-mail: nobody could be written to' });
  return out;
}

type Answers = Readonly<Record<string, FactValue>>;

/** The questions that are asked, given the answers so far. What is not asked stays empty, whatever was sent for it. */
export function askedOf(form: Form, answers: Answers): readonly FormQuestion[] {
  const known: Record<string, FactValue> = {};
  return questionsOf(form).filter((question) => {
    const shown = question.when === '' || holds(question.when, known);
    if (shown) known[question.id] = answers[question.id] ?? null;
    return shown;
  });
}

function holds(when: string, scope: Answers): boolean {
  const parsed = parseFeel(when);
  return parsed.expr !== undefined && parsed.problems.length === 0 && compileFeel(parsed.expr)(scope) === true;
}

const TYPE_OF: Readonly<Partial<Record<QuestionKind, FieldType>>> = { number: 'number', date: 'date', 'e-mail': 'e-mail', phone: 'phone' };

/** One answer as it was typed, read by its kind; a problem says what to do. */
export function readAnswer(question: FormQuestion, raw: string): { readonly value: FactValue } | { readonly says: string } {
  const text = raw.trim();
  if (text === '')
    return question.required ? { says: question.kind === 'consent' ? 'please agree to go on' : 'please answer this' } : { value: null };
  if (text.length > MAX_ANSWER) return { says: `at most ${MAX_ANSWER.toLocaleString('en-GB')} characters` };
  switch (question.kind) {
    case 'choice':
      return question.options?.includes(text) ? { value: text } : { says: 'please choose one of the answers' };
    case 'consent':
      return { value: text === 'yes' };
    case 'text':
      return { value: text.replace(/\s+/g, ' ') };
    case 'long text':
    case 'file':
      return { value: text };
    default: {
      const type = TYPE_OF[question.kind] ?? 'text';
      const reading = readTyped(question.unit === undefined ? { type } : { type, unit: question.unit }, text);
      return reading.ok ? { value: reading.value } : { says: reading.why };
    }
  }
}

/** A whole entry: every question that is asked, read; problems by question. */
export function readEntry(
  form: Form,
  raw: Readonly<Record<string, string>>,
): { readonly answers: Answers; readonly problems: readonly FormProblem[] } {
  const typed: Record<string, FactValue> = {};
  for (const question of questionsOf(form)) {
    const reading = readAnswer(question, raw[question.id] ?? '');
    typed[question.id] = 'value' in reading ? reading.value : null;
  }
  const asked = askedOf(form, typed);
  const problems = asked.flatMap((question): FormProblem[] => {
    const reading = readAnswer(question, raw[question.id] ?? '');
    return 'says' in reading ? [{ question: question.id, says: reading.says }] : [];
  });
  return { answers: Object.fromEntries(asked.map((question) => [question.id, typed[question.id] ?? null])), problems };
}

/** An entry as a row of cells with their targets, as lists have them: the same rules tidy it and the same records come of it. */
export function entryRow(
  form: Form,
  answers: Answers,
): { readonly cells: readonly string[]; readonly columns: readonly { readonly target: Target }[] } {
  const filled = questionsOf(form).filter((question) => question.fills !== null && answers[question.id] != null);
  return {
    cells: filled.map((question) => {
      const value = answers[question.id];
      return typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value ?? '');
    }),
    columns: filled.map((question) => ({ target: question.fills ?? 'leave out' })),
  };
}

/** Of what kind a file is, by its first bytes; undefined for kinds that no form takes. */
export function fileKind(bytes: Uint8Array): FileKind | undefined {
  const head = String.fromCharCode(...bytes.subarray(0, 8));
  if (head.startsWith('%PDF-')) return 'pdf';
  if (head.startsWith('PK\u0003\u0004')) return containsName(bytes, 'word/document.xml') ? 'docx' : undefined;
  if (bytes.length === 0) return undefined;
  if (isPhotographedPage(bytes)) return 'picture';
  const text = new TextDecoder('utf-8', { fatal: true });
  try {
    return /(?!\s)\p{Cc}/u.test(text.decode(bytes.subarray(0, 4_000), { stream: true })) ? undefined : 'text';
  } catch {
    return undefined;
  }
}

function containsName(bytes: Uint8Array, name: string): boolean {
  const wanted = [...name].map((letter) => letter.charCodeAt(0));
  outer: for (let at = 0; at <= bytes.length - wanted.length; at++) {
    for (let i = 0; i < wanted.length; i++) if (bytes[at + i] !== wanted[i]) continue outer;
    return true;
  }
  return false;
}
