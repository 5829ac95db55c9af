import { plural, type JsonObject } from '../../base';
import { ENTRY } from '../../flow/check';
import type { Instruction } from '../../flow/plan';
import { isDocumentKind, type StepOf } from '../../flow/syntax';
import { answerAll, answering, passageOf, pickDocument } from '../../reader';
import type { Run } from '../run';
import { factsFound, unitOf } from '../stated';
import { PLAIN, type RunOf } from './verb';

export const pickOut: RunOf<StepOf<'pick out'>> = { verb: 'pick out', ...PLAIN, run: picked };

/**
 * Answers typed questions from a text at hand, and of a document of a known kind its usual parts; each answer with its words.
 * What a document says of the record's fields becomes facts of it.
 */
function picked(step: StepOf<'pick out'>, line: Instruction, run: Run): void {
  const text = run.textAt(line);
  const kind = step.document?.text ?? '';
  const origin = originOf(step, run);
  const asked = step.questions.map((question) => ({ id: question.id.text, type: question.type, wording: question.wording.text }));
  const answers = answerAll(asked, [passageOf('', answering(isDocumentKind(kind) ? kind : undefined, text, run.now))], run.now).map(
    (answer, i) => ({
      ...answer,
      id: asked[i]?.id ?? '',
      unit: unitOf(asked[i]?.type),
    }),
  );
  const parts = isDocumentKind(kind)
    ? pickDocument(kind, text, run.now, yearsIn(run)).map((part) => ({
        ...part,
        found: part.value !== null,
        says: part.value === null ? 'not said' : '',
        date: null,
        others: [],
        unit: null,
      }))
    : [];
  const findings = [...parts, ...answers].map((answer) => ({
    ...answer,
    url: origin.url,
    source: 'document' as const,
    others: answer.others.map((other) => ({ ...other, url: origin.url, source: 'document' as const })),
  }));
  const record = kind === 'cv' ? run.view.person : isDocumentKind(kind) ? run.view.company : null;
  const facts = record
    ? factsFound(
        findings.filter((finding) => finding.found && !(kind === 'call' && OWN_OF_A_CALL.has(finding.id))),
        { kind: kind === 'cv' ? 'person' : 'company', id: record.id },
        origin.name,
        run.now,
        run.fields,
      )
    : [];
  if (facts.length > 0) {
    run.commands.push({ kind: 'record facts', mark: line.mark, facts });
    run.reload = true;
  }
  const found = findings.filter((finding) => finding.found).length;
  if (step.as) run.vars[step.as.text] = Object.fromEntries(findings.map((finding) => [finding.id, finding.value]));
  const nothing = text === '' ? ': there is no text' : text.startsWith('(') && text.endsWith(')') ? `: ${text.slice(1, -1)}` : '';
  run.log(line, 'passed', `${found} of ${plural(findings.length, 'answer')} in ${origin.name ?? 'the text'}${nothing}`, { findings });
  run.pass(line);
}

/** Said of the one who spoke, not of the company: people are asked before a way to reach them is changed. */
const OWN_OF_A_CALL = new Set(['email', 'phone', 'decision']);

/** The workspace's fields that count years of some kind of work. */
const yearsIn = (run: Run): readonly { readonly id: string; readonly words: readonly string[] }[] =>
  run.fields.all('person').flatMap((field) => (field.yearsIn ? [{ id: field.key, words: field.yearsIn }] : []));

/** The file a text came in as, when it came along with the record. */
function originOf(step: StepOf<'pick out'>, run: Run): { readonly name: string | null; readonly url: string | null } {
  const expr = step.text.parsed.expr;
  const [first, part = ''] = expr?.kind === 'path' ? expr.segments : [];
  const files = first === ENTRY ? run.vars[ENTRY]?.files : undefined;
  const file = typeof files === 'object' && files !== null && !Array.isArray(files) ? (files as JsonObject)[part] : undefined;
  if (typeof file !== 'object' || file === null || Array.isArray(file)) return { name: null, url: null };
  const { name, url } = file as JsonObject;
  return { name: typeof name === 'string' ? name : null, url: typeof url === 'string' ? url : null };
}
