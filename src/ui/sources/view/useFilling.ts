import { useRef, useState } from 'react';
import { askedOf, readAnswer, type Form, type FormProblem } from '../../../core/intake';

interface Filling {
  readonly form: Form;
  readonly slug: string;
  /** null: nothing is sent */
  readonly opened: string | null;
}

/** A form that is being filled in: its answers, the page somebody is on, what is wrong, and sending. */
export function useFilling({ form, slug, opened }: Filling) {
  const [raw, setRaw] = useState<Readonly<Record<string, string>>>({});
  const [page, setPage] = useState(0);
  const [problems, setProblems] = useState<readonly FormProblem[]>([]);
  const [says, setSays] = useState('');
  const [busy, setBusy] = useState(false);
  const [thanks, setThanks] = useState<{ readonly text: string; readonly number: number } | null>(null);
  const files = useRef(new Map<string, File>());
  const top = useRef<HTMLDivElement>(null);

  const answers = Object.fromEntries(
    form.pages
      .flatMap((entry) => entry.questions)
      .map((question) => {
        const reading = readAnswer(question, raw[question.id] ?? '');
        return [question.id, 'value' in reading ? reading.value : null];
      }),
  );
  const asked = new Set(askedOf(form, answers).map((question) => question.id));
  const at = Math.min(page, form.pages.length - 1);
  const here = form.pages[at];
  const shown = (here?.questions ?? []).filter((question) => asked.has(question.id));
  const last = at === form.pages.length - 1;

  const openFirst = (found: readonly FormProblem[]): void => {
    const where = form.pages.findIndex((entry) =>
      entry.questions.some((question) => found.some((problem) => problem.question === question.id)),
    );
    if (where >= 0) setPage(where);
    top.current?.scrollIntoView({ block: 'nearest' });
  };
  const next = (): void => {
    const found = shown.flatMap((question): FormProblem[] => {
      const reading = readAnswer(question, raw[question.id] ?? '');
      return 'says' in reading ? [{ question: question.id, says: reading.says }] : [];
    });
    setProblems(found);
    setSays(found.length > 0 ? 'Some answers need another look.' : '');
    if (found.length > 0) return;
    if (!last) {
      setPage(at + 1);
      top.current?.scrollIntoView({ block: 'nearest' });
      return;
    }
    if (opened === null) {
      setThanks({ text: form.thanks, number: 0 });
      return;
    }
    void send(opened);
  };
  const send = async (stamp: string): Promise<void> => {
    setBusy(true);
    const data = new FormData();
    data.set('opened', stamp);
    data.set('homepage_2', new FormData(document.querySelector('form') ?? undefined).get('homepage_2') ?? '');
    for (const [id, value] of Object.entries(raw)) if (asked.has(id) && !files.current.has(id)) data.set(`a.${id}`, value);
    for (const [id, file] of files.current) if (asked.has(id)) data.set(`f.${id}`, file);
    try {
      const response = await fetch(`/f/${slug}/send`, { method: 'POST', body: data });
      const answer = (await response.json()) as
        { ok: true; thanks: string; number: number } | { ok: false; problems: readonly FormProblem[]; says: string };
      if (answer.ok) setThanks({ text: answer.thanks, number: answer.number });
      else {
        setProblems(answer.problems);
        setSays(answer.says);
        openFirst(answer.problems);
      }
    } catch {
      setSays('This could not be sent just now. Your answers stay here: please try again.');
    } finally {
      setBusy(false);
    }
  };
  return {
    raw,
    put: (id: string, value: string): void => {
      setRaw((before) => ({ ...before, [id]: value }));
      setProblems((before) => before.filter((entry) => entry.question !== id));
    },
    attach: (id: string, file: File | null): void => {
      if (file) files.current.set(id, file);
      else files.current.delete(id);
    },
    page: at,
    shown,
    last,
    problems,
    says,
    busy,
    thanks,
    top,
    next,
    back: (): void => {
      setPage(at - 1);
    },
    again: (): void => {
      setThanks(null);
      setPage(0);
    },
  };
}
