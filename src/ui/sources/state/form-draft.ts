import type { Form, FormQuestion } from '../../../core/intake';

/** A form while it is built: as it is, as it was before each step, and what a step back can be taken forward to. */
export interface FormDraft {
  readonly form: Form;
  readonly past: readonly Form[];
  readonly future: readonly Form[];
}

export const begin = (form: Form): FormDraft => ({ form, past: [], future: [] });
const STEPS = 100;

export function change(draft: FormDraft, form: Form): FormDraft {
  return { form, past: [...draft.past, draft.form].slice(-STEPS), future: [] };
}
export function undo(draft: FormDraft): FormDraft {
  const form = draft.past.at(-1);
  return form ? { form, past: draft.past.slice(0, -1), future: [draft.form, ...draft.future] } : draft;
}
export function redo(draft: FormDraft): FormDraft {
  const [form, ...future] = draft.future;
  return form ? { form, past: [...draft.past, draft.form], future } : draft;
}

/** Where a question stands. */
export interface Place {
  readonly page: number;
  readonly at: number;
}

const withPage = (form: Form, page: number, questions: readonly FormQuestion[]): Form => ({
  ...form,
  pages: form.pages.map((entry, i) => (i === page ? { ...entry, questions: [...questions] } : entry)),
});

export function putQuestion(form: Form, { page, at }: Place, question: FormQuestion): Form {
  return withPage(
    form,
    page,
    (form.pages[page]?.questions ?? []).map((entry, i) => (i === at ? question : entry)),
  );
}
export function takeOut(form: Form, { page, at }: Place): Form {
  return withPage(
    form,
    page,
    (form.pages[page]?.questions ?? []).filter((_, i) => i !== at),
  );
}

/** A new question below that place, with a name that is free. */
export function addBelow(form: Form, { page, at }: Place): Form {
  const taken = new Set(form.pages.flatMap((entry) => entry.questions.map((question) => question.id)));
  let n = taken.size + 1;
  while (taken.has(`question_${n}`)) n++;
  const fresh: FormQuestion = {
    id: `question_${n}`,
    label: 'New question',
    help: '',
    kind: 'text',
    required: false,
    when: '',
    fills: null,
  };
  const questions = form.pages[page]?.questions ?? [];
  return withPage(form, page, [...questions.slice(0, at + 1), fresh, ...questions.slice(at + 1)]);
}

/** One place up or down, from page to page at the ends; where there is nowhere to go it stays. */
export function move(form: Form, { page, at }: Place, by: -1 | 1): { readonly form: Form; readonly place: Place } {
  const questions = form.pages[page]?.questions ?? [];
  const question = questions[at];
  if (!question) return { form, place: { page, at } };
  const to = at + by;
  if (to >= 0 && to < questions.length) {
    const rest = questions.filter((_, i) => i !== at);
    return { form: withPage(form, page, [...rest.slice(0, to), question, ...rest.slice(to)]), place: { page, at: to } };
  }
  const next = page + by;
  const there = form.pages[next];
  if (!there) return { form, place: { page, at } };
  const place = { page: next, at: by < 0 ? there.questions.length : 0 };
  const without = takeOut(form, { page, at });
  const list = without.pages[next]?.questions ?? [];
  return { form: withPage(without, next, [...list.slice(0, place.at), question, ...list.slice(place.at)]), place };
}

export function addPage(form: Form): Form {
  return { ...form, pages: [...form.pages, { title: `Page ${form.pages.length + 1}`, questions: [] }] };
}
/** A page goes; its questions move to the page before it, so that none is lost. */
export function removePage(form: Form, page: number): Form {
  if (form.pages.length < 2) return form;
  const into = page === 0 ? 1 : page - 1;
  const moved = form.pages[page]?.questions ?? [];
  return {
    ...form,
    pages: form.pages.flatMap((entry, i) =>
      i === page
        ? []
        : [i === into ? { ...entry, questions: page === 0 ? [...moved, ...entry.questions] : [...entry.questions, ...moved] } : entry],
    ),
  };
}

/** A first form: who, how to reach them, what for. */
export const FIRST_FORM: Form = {
  title: 'Write to us',
  intro: '',
  pages: [
    {
      title: '',
      questions: [
        { id: 'name', label: 'Your name', help: '', kind: 'text', required: true, when: '', fills: 'person.name' },
        { id: 'email', label: 'Your e-mail', help: '', kind: 'e-mail', required: true, when: '', fills: 'person.email' },
        { id: 'company', label: 'Your company', help: '', kind: 'text', required: false, when: '', fills: 'company.name' },
        { id: 'about', label: 'What is it about?', help: '', kind: 'long text', required: false, when: '', fills: 'note' },
      ],
    },
  ],
  embedOn: [],
  button: 'Send',
  thanks: 'Thank you. We have received what you sent.',
};
