import { z } from 'zod';
import { plural, stableId, textIn } from '../../base';
import { ENTRY } from '../../flow/check';
import type { StepOf } from '../../flow/syntax';
import { recorded, type RunOf } from './verb';

const detail = z.object({
  subject: z.string(),
  body: z.string(),
  language: z.string().default('en'),
  covered: z.boolean().default(false),
  /** what they asked or objected and nobody has agreed an answer to */
  open: z.array(z.string()).default([]),
  questions: z.number().default(0),
  /** names of the agreed answers it is made of */
  answers: z.array(z.string()).default([]),
  checks: z.array(z.object({ id: z.string(), ok: z.boolean(), says: z.string() })).default([]),
});

/** Drafts an answer from the book of answers; a draft that fails a check is held. */
export const reply = {
  verb: 'reply',
  run(_step, line, run) {
    const words = run.textAt(line);
    const subject = textIn(run.vars[ENTRY]?.subject);
    if (words.trim() === '') run.stick(line, 'there is nothing to answer: the text is empty');
    else run.request = { kind: 'draft', words, subject: subject === '' ? null : subject };
  },
  asks: {
    kind: 'draft',
    answered(answer, step, line, run) {
      const { kind: _, uses, ...draft } = answer;
      const { subject, body, covered, open, questions, language, checks, answers } = draft;
      const failed = checks.filter((check) => !check.ok);
      const kept = { ...draft, open: [...open], answers: [...answers], checks: checks.map((check) => ({ ...check })) };
      if (failed.length > 0) {
        run.stick(line, `held: ${failed.map((check) => check.says).join('; ')}`, true, kept);
        return;
      }
      const messageId = stableId('message', run.trip.id, line.mark);
      const composed = {
        subject,
        body,
        personalLine: null,
        factsUsed: [],
        checks: [...checks],
        passed: true,
        language,
        wording: null,
        fallback: null,
        reads: null,
        tried: null,
      };
      run.commands.push({ kind: 'keep message', messageId, template: null, composed, uses });
      if (step.as) run.vars[step.as.text] = { id: messageId, subject, body, covered, open: open.join(' '), questions, language };
      const says = covered
        ? 'all of it is agreed'
        : open.length > 0
          ? `${plural(open.length, 'thing')} nobody has agreed on`
          : 'nothing in it asks';
      run.log(
        line,
        'passed',
        `drafted from ${answers.length === 0 ? 'no agreed answer' : answers.map((name) => `“${name}”`).join(', ')}: ${says}`,
        {
          messageId,
          ...kept,
        },
      );
      run.pass(line);
    },
    replayed({ subject }, readings, missing) {
      const [known] = recorded(readings, 'reply', detail);
      if (!known) missing.push('an answer from the book');
      // Checks that were kept are not made again: what left then, leaves in the replay.
      const nothing = { subject: subject ?? '', body: '', language: 'en', covered: false, open: [], questions: 0, answers: [], checks: [] };
      return { kind: 'draft', ...(known ?? nothing), checks: [], uses: [] };
    },
  },
  wakes: null,
  detail,
  older: [],
} satisfies RunOf<StepOf<'reply'>>;
