'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { plural } from '../../../core/base';
import type { Form, FormProblem } from '../../../core/intake';
import { addBelow, addPage, move, putQuestion, removePage, takeOut, type Place } from '../state/form-draft';
import './forms.css';
import { QuestionEditor } from './QuestionEditor';

interface Props {
  readonly form: Form;
  readonly problems: readonly FormProblem[];
  readonly mayChange: boolean;
  readonly onForm: (form: Form) => void;
}

/** The questions of a form in the making, page by page. */
export function FormBuilder({ form, problems, mayChange, onForm }: Props) {
  const [open, setOpen] = useState<Place | null>(null);
  const whole = problems.filter((problem) => problem.question === '');
  return (
    <fieldset className="builder" disabled={!mayChange}>
      {whole.map((problem) => (
        <p key={problem.says} className="in-brick" role="alert">
          ■ {problem.says}
        </p>
      ))}
      <div className="head-fields">
        <TextField
          label="Title"
          value={form.title}
          onChange={(event) => {
            onForm({ ...form, title: event.target.value });
          }}
        />
        <TextField
          label="Introduction"
          value={form.intro}
          onChange={(event) => {
            onForm({ ...form, intro: event.target.value });
          }}
        />
      </div>
      {form.pages.map((_page, p) => (
        <PageOfForm key={p} form={form} no={p} problems={problems} open={open} onOpen={setOpen} onForm={onForm} />
      ))}
      <div className="builder-foot">
        <Button
          onClick={() => {
            onForm(addPage(form));
          }}
        >
          Add a page
        </Button>
        <TextField
          label="Button"
          value={form.button}
          onChange={(event) => {
            onForm({ ...form, button: event.target.value });
          }}
        />
        <TextField
          className="grow"
          label="What they see after sending"
          value={form.thanks}
          onChange={(event) => {
            onForm({ ...form, thanks: event.target.value });
          }}
        />
      </div>
    </fieldset>
  );
}

interface PageProps extends Omit<Props, 'mayChange'> {
  readonly no: number;
  readonly open: Place | null;
  readonly onOpen: (place: Place | null) => void;
}
function PageOfForm({ form, no: p, problems, open, onOpen, onForm }: PageProps) {
  const page = form.pages[p];
  if (!page) return null;
  return (
    <section aria-label={page.title || `Page ${p + 1}`}>
      <div className="page-head">
        <input
          aria-label={`Title of page ${p + 1}`}
          value={page.title}
          placeholder={`Page ${p + 1}`}
          onChange={(event) => {
            onForm({ ...form, pages: form.pages.map((entry, i) => (i === p ? { ...entry, title: event.target.value } : entry)) });
          }}
        />
        <span className="quiet small">{plural(page.questions.length, 'question')}</span>
        {form.pages.length > 1 ? (
          <button
            type="button"
            className="linkish small"
            onClick={() => {
              onOpen(null);
              onForm(removePage(form, p));
            }}
          >
            join with the page {p === 0 ? 'below' : 'above'}
          </button>
        ) : null}
      </div>
      {page.questions.map((question, at) => {
        const place = { page: p, at };
        return (
          <QuestionEditor
            key={question.id}
            question={question}
            open={open?.page === p && open.at === at}
            problems={problems.filter((problem) => problem.question === question.id)}
            onToggle={() => {
              onOpen(open?.page === p && open.at === at ? null : place);
            }}
            onChange={(next) => {
              onForm(putQuestion(form, place, next));
            }}
            onMove={(by) => {
              const moved = move(form, place, by);
              if (open) onOpen(moved.place);
              onForm(moved.form);
            }}
            onAdd={() => {
              onOpen({ page: p, at: at + 1 });
              onForm(addBelow(form, place));
            }}
            onRemove={() => {
              onOpen(null);
              onForm(takeOut(form, place));
            }}
          />
        );
      })}
      {page.questions.length === 0 ? (
        <div className="no-question">
          <Button
            onClick={() => {
              onOpen({ page: p, at: 0 });
              onForm(addBelow(form, { page: p, at: -1 }));
            }}
          >
            Add a question
          </Button>
        </div>
      ) : null}
    </section>
  );
}
