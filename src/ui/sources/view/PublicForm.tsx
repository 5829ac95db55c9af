'use client';
import { Button } from '@mui/material';
import { dayOf } from '../../../core/fields';
import { type Form, type FormQuestion } from '../../../core/intake';
import './forms.css';
import { useFilling } from './useFilling';

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
  const filling = useFilling({ form, slug, opened });
  const { raw, put, page: at, shown, last, problems, says, busy, thanks, top, next, back, again } = filling;
  return (
    <div className={`public-form ${inside ? 'inside' : ''}`} ref={top}>
      {inside ? null : <p className="from">{from}</p>}
      <main className="sheet">
        <h1>{form.title}</h1>
        {thanks ? (
          <Thanks thanks={thanks} onAgain={opened === null ? again : undefined} />
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
                  put(question.id, value);
                }}
                onFile={(file) => {
                  filling.attach(question.id, file);
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
              {at > 0 ? <Button onClick={back}>Back</Button> : null}
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

interface ThanksProps {
  readonly thanks: { readonly text: string; readonly number: number };
  readonly onAgain: (() => void) | undefined;
}
function Thanks({ thanks, onAgain }: ThanksProps) {
  return (
    <div role="status">
      <p>{thanks.text}</p>
      {thanks.number > 0 ? <p className="quiet small">Number {thanks.number}</p> : null}
      {onAgain ? (
        <button className="linkish" onClick={onAgain}>
          back to the questions
        </button>
      ) : null}
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
