'use client';
import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { call, sayProblem } from '../../client';
import { TextArea } from '../../kit/TextArea';
import type { SaidText } from '../../kit/parts';
import { linesIn } from '../../kit/lines';

export interface OpeningItem {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly description: string;
  readonly criteria: readonly string[];
  readonly stages: readonly string[];
  readonly isOpen: boolean;
  readonly applications: number;
}

/** What an opening is, and what a good candidate for it has; changed in place. */
export function OpeningCard({
  opening,
  known,
  mayChange,
  onSaid,
}: {
  readonly opening: OpeningItem;
  /** what is known of it in fields of its own */
  readonly known: ReactNode;
  readonly mayChange: boolean;
  readonly onSaid: (said: SaidText) => void;
}) {
  const router = useRouter();
  const [draft, setDraft] = useState<{ place: string; description: string; criteria: string; stages: string } | null>(null);
  const save = (isOpen: boolean): void => {
    const body = draft
      ? { place: draft.place, description: draft.description, criteria: linesIn(draft.criteria), stages: linesIn(draft.stages), isOpen }
      : { place: opening.place, description: opening.description, criteria: [...opening.criteria], stages: [...opening.stages], isOpen };
    call('saveOpening', { params: { id: opening.id }, body }).then(
      () => {
        setDraft(null);
        onSaid({ calm: true, text: isOpen ? 'Kept.' : 'Closed: flows cannot name it any more, and who has applied stays.' });
        router.refresh();
      },
      (error: unknown) => {
        onSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  if (draft) {
    const put = (key: keyof typeof draft) => (text: string) => {
      setDraft({ ...draft, [key]: text });
    };
    const lines = (key: keyof typeof draft, label: string) => (
      <TextArea label={label} shown rows={4} value={draft[key]} onChange={put(key)} />
    );
    return (
      <form
        className="opening-card"
        onSubmit={(event) => {
          event.preventDefault();
          save(opening.isOpen);
        }}
      >
        <TextField
          label="Where"
          value={draft.place}
          onChange={(event) => {
            put('place')(event.target.value);
          }}
        />
        {lines('description', 'What the work is')}
        {lines('criteria', 'What a good candidate has, one a line')}
        {lines('stages', 'Stages, one a line')}
        <div className="deeds">
          <Button type="submit" variant="contained">
            Keep
          </Button>
          <Button
            onClick={() => {
              setDraft(null);
            }}
          >
            Leave it
          </Button>
        </div>
      </form>
    );
  }
  return (
    <>
      <div className="opening-card">
        <p>{opening.description || <span className="quiet">Nothing is said about the work yet.</span>}</p>
        {opening.criteria.length > 0 ? (
          <>
            <h3>A good candidate has</h3>
            <ul>
              {opening.criteria.map((criterion) => (
                <li key={criterion}>{criterion}</li>
              ))}
            </ul>
          </>
        ) : null}
        {mayChange ? (
          <div className="deeds">
            <Button
              onClick={() => {
                setDraft({
                  place: opening.place,
                  description: opening.description,
                  criteria: opening.criteria.join('\n'),
                  stages: opening.stages.join('\n'),
                });
              }}
            >
              Change
            </Button>
            <Button
              onClick={() => {
                save(!opening.isOpen);
              }}
            >
              {opening.isOpen ? 'Close it' : 'Open it again'}
            </Button>
          </div>
        ) : null}
      </div>
      {known}
    </>
  );
}
