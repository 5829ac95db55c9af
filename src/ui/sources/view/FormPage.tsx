/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { plural } from '../../../core/base';
import { questionsOf, checkForm, type Form } from '../../../core/intake';
import { call, sayProblem } from '../../client';
import { useFields } from '../../client/fields';
import { agoText } from '../../kit/format';
import { type SaidText } from '../../kit/parts';
import { DoorHead, type DoorView } from './DoorHead';
import { begin, change, redo, undo, type FormDraft } from '../state/form-draft';
import { Entries, type EntryView } from './Entries';
import { FormBuilder } from './FormBuilder';
import { FormShare } from './FormShare';
import './forms.css';
import { PublicForm } from './PublicForm';
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
  const [tab, setTab] = useState<Tab>('questions');
  const { draft, setDraft, saved, said, setSaid, changed, save } = useFormDraft(view);
  const problems = checkForm(draft.form, fields);
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
      <Tabs tab={tab} onTab={setTab} entries={entries.length} flows={view.flows} />
      {tab === 'questions' ? (
        <div className="cols">
          <section className="col paper" css={placed({ flex: '1 1 560px' })} aria-label="Questions">
            <FormBuilder
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
        <FormShare
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

/** The form as it is being changed, kept only when somebody says so; undone and done again by key. */
function useFormDraft(view: Props['view']) {
  const router = useRouter();
  const [draft, setDraft] = useState<FormDraft>(() => begin(view.form));
  const [saved, setSaved] = useState(view.form);
  const [said, setSaid] = useState<SaidText | null>(null);
  const changed = draft.form !== saved;

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
  return { draft, setDraft, saved, said, setSaid, changed, save };
}

type Tab = 'questions' | 'entries' | 'share';
interface TabsProps {
  readonly tab: Tab;
  readonly onTab: (tab: Tab) => void;
  readonly entries: number;
  readonly flows: readonly string[];
}
function Tabs({ tab, onTab, entries, flows }: TabsProps) {
  return (
    <div className="tabs-row" role="tablist">
      {(
        [
          ['questions', 'Questions'],
          ['entries', `What came in · ${entries}`],
          ['share', 'Where it stands'],
        ] as const
      ).map(([key, label]) => (
        <button
          key={key}
          role="tab"
          aria-selected={tab === key}
          className={tab === key ? 'on' : ''}
          onClick={() => {
            onTab(key);
          }}
        >
          {label}
        </button>
      ))}
      <span className="grow" />
      <span className="quiet">
        {flows.length === 0 ? (
          <span className="in-brass">◆ no live flow begins with it: what is sent only becomes a record</span>
        ) : (
          `begins ${flows.join(', ')}`
        )}
      </span>
    </div>
  );
}
