'use client';
import { Button } from '@mui/material';
import { useRef, useState } from 'react';
import { dayOf } from '../../../core/fields';
import { askedOf, readAnswer, type Form, type FormProblem, type FormQuestion } from '../../../core/intake';
import './forms.css';

interface Props {
  readonly form: Form;
  readonly slug: string;
  /** the stamp that goes back with the answers; null in the builder, where nothing is sent */
  readonly opened: string | null;
  /** whose form it is */
  readonly from: string;
  /** stands in another page: without head */
  readonly inside?: boolean;
}

/** A form as whoever fills it in sees it: page by page, with the questions that earlier answers call for. */
export function PublicForm({ form, slug, opened, from, inside = false }: Props) {
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

  return (
    <div className={`public-form ${inside ? 'inside' : ''}`} ref={top}>
      {inside ? null : <p className="from">{from}</p>}
      <main className="sheet">
        <h1>{form.title}</h1>
        {thanks ? (
          <div role="status">
            <p>{thanks.text}</p>
            {thanks.number > 0 ? <p className="quiet small">Number {thanks.number}</p> : null}
            {opened === null ? (
              <button
                className="linkish"
                onClick={() => {
                  setThanks(null);
                  setPage(0);
                }}
              >
                back to the questions
              </button>
            ) : null}
          </div>
        ) : (
          <form
            noValidate
            onSubmit={(event) => {
              event.preventDefault();
              next();
            }}
          >
            {at === 0 && form.intro !== '' ? <p>{form.intro}</p> : null}
            {form.pages.length > 1 ? (
              <p className="steps" aria-label={`Page ${at + 1} of ${form.pages.length}`}>
                {form.pages.map((entry, i) => (
                  <span key={i} className={i === at ? 'on' : i < at ? 'done' : ''}>
                    {entry.title || `Page ${i + 1}`}
                  </span>
                ))}
              </p>
            ) : null}
            {shown.map((question) => (
              <Ask
                key={question.id}
                question={question}
                value={raw[question.id] ?? ''}
                problem={problems.find((entry) => entry.question === question.id)?.says}
                onValue={(value) => {
                  setRaw((before) => ({ ...before, [question.id]: value }));
                  setProblems((before) => before.filter((entry) => entry.question !== question.id));
                }}
                onFile={(file) => {
                  if (file) files.current.set(question.id, file);
                  else files.current.delete(question.id);
                }}
              />
            ))}
            <label className="trap" aria-hidden>
              Leave this empty
              <input name="homepage_2" tabIndex={-1} autoComplete="off" />
            </label>
            {says === '' ? null : (
              <p role="alert" className="in-brick">
                {says}
              </p>
            )}
            <div className="go">
              {at > 0 ? (
                <Button
                  onClick={() => {
                    setPage(at - 1);
                  }}
                >
                  Back
                </Button>
              ) : null}
              <span className="grow" />
              <Button type="submit" variant="contained" disabled={busy}>
                {last ? (busy ? 'Sending …' : form.button) : 'Go on'}
              </Button>
            </div>
          </form>
        )}
      </main>
    </div>
  );
}

/** What stands at the address of a form that is switched off, or was never there. */
export function ClosedForm({ from }: { readonly from: string }) {
  return (
    <div className="public-form">
      <p className="from">{from}</p>
      <main className="sheet">
        <h1>This form is closed</h1>
        <p>Nothing can be sent here at the moment.</p>
      </main>
    </div>
  );
}

const INPUT: Readonly<Record<string, string>> = { 'e-mail': 'email', phone: 'tel' };

/** A day as it was understood: a field of the browser's own would show it as the browser's country writes it. */
function AsDay({ text }: { readonly text: string }) {
  const iso = dayOf(text);
  if (text.trim() === '') return null;
  return (
    <span className="quiet" role="status">
      {iso === undefined
        ? 'a day, such as 24 November 2026'
        : new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeZone: 'UTC' }).format(new Date(`${iso}T12:00:00Z`))}
    </span>
  );
}

function Ask({
  question,
  value,
  problem,
  onValue,
  onFile,
}: {
  readonly question: FormQuestion;
  readonly value: string;
  readonly problem: string | undefined;
  readonly onValue: (value: string) => void;
  readonly onFile: (file: File | null) => void;
}) {
  const id = `q-${question.id}`;
  const described = problem === undefined ? (question.help === '' ? undefined : `${id}-help`) : `${id}-problem`;
  const shared = { id, 'aria-invalid': problem !== undefined, 'aria-describedby': described, required: question.required };
  const label = (
    <>
      {question.label}
      {question.required ? <span className="must"> · needed</span> : null}
    </>
  );
  const field = (): React.ReactNode => {
    switch (question.kind) {
      case 'long text':
        return (
          <textarea
            {...shared}
            rows={4}
            value={value}
            onChange={(event) => {
              onValue(event.target.value);
            }}
          />
        );
      case 'choice':
        return (
          <div className="options" role="radiogroup" aria-labelledby={`${id}-label`} aria-describedby={described}>
            {(question.options ?? []).map((option) => (
              <label key={option}>
                <input
                  type="radio"
                  name={question.id}
                  checked={value === option}
                  onChange={() => {
                    onValue(option);
                  }}
                />
                {option}
              </label>
            ))}
          </div>
        );
      case 'file':
        return (
          <input
            {...shared}
            type="file"
            onChange={(event) => {
              const file = event.target.files?.[0] ?? null;
              onFile(file);
              onValue(file?.name ?? '');
            }}
          />
        );
      default:
        return (
          <span className="with-unit">
            <input
              {...shared}
              type={INPUT[question.kind] ?? 'text'}
              inputMode={question.kind === 'number' ? 'decimal' : undefined}
              placeholder={question.kind === 'date' ? '24 November 2026' : undefined}
              value={value}
              onChange={(event) => {
                onValue(event.target.value);
              }}
            />
            {question.unit === undefined ? null : <span className="quiet">{question.unit}</span>}
            {question.kind === 'date' ? <AsDay text={value} /> : null}
          </span>
        );
    }
  };
  return (
    <div className="ask">
      {question.kind === 'consent' ? (
        <label className="consent">
          <input
            {...shared}
            type="checkbox"
            checked={value === 'yes'}
            onChange={(event) => {
              onValue(event.target.checked ? 'yes' : '');
            }}
          />
          {label}
        </label>
      ) : (
        <>
          {question.kind === 'choice' ? <span id={`${id}-label`}>{label}</span> : <label htmlFor={id}>{label}</label>}
          {field()}
        </>
      )}
      {question.help === '' || problem !== undefined ? null : (
        <p id={`${id}-help`} className="small quiet">
          {question.help}
        </p>
      )}
      {problem === undefined ? null : (
        <p id={`${id}-problem`} className="small in-brick">
          {problem}
        </p>
      )}
    </div>
  );
}
