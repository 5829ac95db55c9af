/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { plural } from '../../../core/base';
import { questionsOf, checkForm, type Form, type FormProblem } from '../../../core/intake';
import { call, sayProblem } from '../../client';
import { useFields } from '../../client/fields';
import { agoText } from '../../kit/format';
import { type SaidText } from '../../kit/parts';
import { DoorHead, type DoorView } from './DoorHead';
import {
  addBelow,
  addPage,
  begin,
  change,
  move,
  putQuestion,
  redo,
  removePage,
  takeOut,
  undo,
  type FormDraft,
  type Place,
} from '../state/form-draft';
import { Entries, type EntryView } from './Entries';
import './forms.css';
import { PublicForm } from './PublicForm';
import { QuestionEditor } from './QuestionEditor';
import { placed } from '../../kit/placed';

interface Props {
  readonly view: DoorView & {
    readonly slug: string;
    readonly form: Form;
  };
  readonly entries: readonly EntryView[];
  readonly now: number;
  readonly zone: string;
  readonly from: string;
  readonly publicUrl: string;
  readonly mayChange: boolean;
  readonly mayOpen: boolean;
}

/** A form: its questions in the making beside how it looks, what was sent through it, and where it stands. */
export function FormPage({ view, entries, now, zone, from, publicUrl, mayChange, mayOpen }: Props) {
  const fields = useFields();
  const router = useRouter();
  const [tab, setTab] = useState<'questions' | 'entries' | 'share'>('questions');
  const [draft, setDraft] = useState<FormDraft>(() => begin(view.form));
  const [saved, setSaved] = useState(view.form);
  const [said, setSaid] = useState<SaidText | null>(null);
  const changed = draft.form !== saved;
  const problems = checkForm(draft.form, fields);

  const save = (isOn: boolean): void => {
    const { form } = draft;
    call('saveForm', { params: { id: view.id }, body: { form, isOn } }).then(
      () => {
        setSaved(form);
        setSaid({
          calm: true,
          text: isOn ? 'Kept: the public page shows it as it is now.' : 'Switched off: its page says that it is closed.',
        });
        router.refresh();
      },
      (error: unknown) => {
        setSaid({ calm: false, text: `${sayProblem(error)} · nothing of it is lost` });
      },
    );
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      const { target } = event;
      if (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) return;
      event.preventDefault();
      setDraft(event.shiftKey ? redo : undo);
    };
    window.addEventListener('keydown', onKey);
    return () => {
      window.removeEventListener('keydown', onKey);
    };
  }, []);

  return (
    <>
      <DoorHead
        door={view}
        told={`${view.lastAt === null ? 'nothing received yet' : `last received ${agoText(view.lastAt, now)}`} · ${plural(view.taken, 'entry', 'entries')} taken in${view.refused > 0 ? `, ${view.refused} refused` : ''}`}
        said={said}
        onSaid={setSaid}
        onSwitch={mayChange ? save : undefined}
      >
        <Button
          disabled={draft.past.length === 0}
          onClick={() => {
            setDraft(undo);
          }}
        >
          Undo
        </Button>
        <Button
          variant="contained"
          disabled={!changed}
          onClick={() => {
            save(view.isOn);
          }}
        >
          {changed ? 'Keep changes' : 'Kept'}
        </Button>
      </DoorHead>
      <div className="tabs-row" role="tablist">
        {(
          [
            ['questions', 'Questions'],
            ['entries', `What came in · ${entries.length}`],
            ['share', 'Where it stands'],
          ] as const
        ).map(([key, label]) => (
          <button
            key={key}
            role="tab"
            aria-selected={tab === key}
            className={tab === key ? 'on' : ''}
            onClick={() => {
              setTab(key);
            }}
          >
            {label}
          </button>
        ))}
        <span className="grow" />
        <span className="quiet">
          {view.flows.length === 0 ? (
            <span className="in-brass">◆ no live flow begins with it: what is sent only becomes a record</span>
          ) : (
            `begins ${view.flows.join(', ')}`
          )}
        </span>
      </div>
      {tab === 'questions' ? (
        <div className="cols">
          <section className="col paper" css={placed({ flex: '1 1 560px' })} aria-label="Questions">
            <Builder
              form={draft.form}
              problems={problems}
              mayChange={mayChange}
              onForm={(form) => {
                setDraft((before) => change(before, form));
              }}
            />
          </section>
          <section className="col preview" css={placed({ flex: '0 1 470px' })} aria-label="How it looks">
            <div className="bar">
              <h2 className="grow">How it looks</h2>
              <span className="quiet small">nothing is sent from here</span>
            </div>
            <PublicForm key={JSON.stringify(draft.form.pages.length)} form={draft.form} slug={view.slug} opened={null} from={from} />
          </section>
        </div>
      ) : tab === 'entries' ? (
        <Entries
          mayOpen={mayOpen}
          entries={entries}
          questions={questionsOf(saved)
            .filter((question) => question.kind !== 'file')
            .map(({ id, label, unit }) => ({ id, label, unit, mendable: true }))}
          zone={zone}
          mend={mayChange ? (id, raw) => call('mendEntry', { params: { id }, body: { raw: { ...raw } } }) : undefined}
          empty="Open the form’s own page under “Where it stands”, fill it in as a visitor would, and see here what becomes of it."
          onSaid={setSaid}
        />
      ) : (
        <Share
          name={view.name}
          slug={view.slug}
          publicUrl={publicUrl}
          form={draft.form}
          mayChange={mayChange}
          onForm={(form) => {
            setDraft((before) => change(before, form));
          }}
        />
      )}
    </>
  );
}

function Builder({
  form,
  problems,
  mayChange,
  onForm,
}: {
  readonly form: Form;
  readonly problems: readonly FormProblem[];
  readonly mayChange: boolean;
  readonly onForm: (form: Form) => void;
}) {
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
      {form.pages.map((page, p) => (
        <section key={p} aria-label={page.title || `Page ${p + 1}`}>
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
                  setOpen(null);
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
                  setOpen(open?.page === p && open.at === at ? null : place);
                }}
                onChange={(next) => {
                  onForm(putQuestion(form, place, next));
                }}
                onMove={(by) => {
                  const moved = move(form, place, by);
                  if (open) setOpen(moved.place);
                  onForm(moved.form);
                }}
                onAdd={() => {
                  setOpen({ page: p, at: at + 1 });
                  onForm(addBelow(form, place));
                }}
                onRemove={() => {
                  setOpen(null);
                  onForm(takeOut(form, place));
                }}
              />
            );
          })}
          {page.questions.length === 0 ? (
            <div className="no-question">
              <Button
                onClick={() => {
                  setOpen({ page: p, at: 0 });
                  onForm(addBelow(form, { page: p, at: -1 }));
                }}
              >
                Add a question
              </Button>
            </div>
          ) : null}
        </section>
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

/** What somebody typed as a site, as the browser will name it: `my-firm.example/contact` is https://my-firm.example. */
function siteOrigin(line: string): string | undefined {
  if (line === '') return undefined;
  const address = /^https?:/i.test(line) ? line : `https://${line}`;
  return URL.canParse(address) ? new URL(address).origin : undefined;
}

interface ShareProps {
  readonly name: string;
  readonly slug: string;
  readonly publicUrl: string;
  readonly form: Form;
  readonly mayChange: boolean;
  readonly onForm: (form: Form) => void;
}

function Share({ name, slug, publicUrl, form, mayChange, onForm }: ShareProps) {
  const [typed, setTyped] = useState(form.embedOn.join('\n'));
  const address = `${publicUrl}/f/${slug}`;
  const frame = `<iframe src="${address}?inside" title="${name.replace(/["&<]/g, '')}" style="width:100%;height:640px;border:0"></iframe>`;
  return (
    <div className="cols">
      <section className="col paper share grow">
        <h2>Its own page</h2>
        <p>
          <a href={`/f/${slug}`} target="_blank" rel="noreferrer">
            {address}
          </a>
        </p>
        <h2>Inside a page of your site</h2>
        <p className="quiet">
          Name the sites that may show it, one a line, such as https://www.my-firm.example. Nobody else can put it into a page of theirs.
        </p>
        <TextField
          fullWidth
          multiline
          minRows={2}
          value={typed}
          disabled={!mayChange}
          placeholder="no site: the form has its own page only"
          onChange={(event) => {
            setTyped(event.target.value);
          }}
          onBlur={() => {
            const embedOn = [...new Set(typed.split(/[\s,]+/).flatMap((line) => siteOrigin(line) ?? []))];
            setTyped(embedOn.join('\n'));
            if (embedOn.join() !== form.embedOn.join()) onForm({ ...form, embedOn });
          }}
          slotProps={{ htmlInput: { 'aria-label': 'Sites that may show the form' } }}
        />
        <p className="quiet">Then put this where the form is to stand. It takes on the width it is given.</p>
        <TextField fullWidth multiline value={frame} slotProps={{ htmlInput: { readOnly: true, 'aria-label': 'Code for your site' } }} />
        <h2>How it is guarded</h2>
        <p className="quiet">
          Eight entries in ten minutes for one sender; a field that only machines fill in; files of at most 8 MB, told apart by what is in
          them; an answer sent twice is one entry. None of this can be switched off.
        </p>
      </section>
    </div>
  );
}
