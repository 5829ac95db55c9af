/** @jsxImportSource @emotion/react */
'use client';
import { TextField } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, sayProblem } from '../../client';
import { clockText, dayText, sameDay } from '../../kit/format';
import { Tag } from '../../kit/parts';
import type { TimelineItem } from '../state/group';
import { placed } from '../../kit/placed';

const GLYPH: Readonly<Record<string, readonly [glyph: string, tone: string]>> = {
  reply: ['↩', 'in-brass'],
  sent: ['→', 'in-river'],
  task: ['☐', 'in-river'],
  note: ['✎', 'quiet'],
  change: ['✎', 'quiet'],
  score: ['◆', 'in-river'],
  read: ['≡', 'quiet'],
  lookup: ['⌕', 'quiet'],
  merge: ['◇', 'in-brass'],
  intake: ['▣', 'quiet'],
  deal: ['▤', 'in-river'],
  assign: ['☞', 'quiet'],
  review: ['✓', 'in-moss'],
  plan: ['◷', 'in-river'],
};
const FILTERS = ['all', 'messages', 'notes', 'trips'] as const;

interface Props {
  readonly items: readonly TimelineItem[];
  readonly now: number;
  readonly zone: string;
  /** where a note goes; undefined: nobody may write one here */
  readonly noteOn: string | undefined;
}

/** One timeline of everything that happened, by day. */
export function Timeline({ items, now, zone, noteOn }: Props) {
  const router = useRouter();
  const [filter, setFilter] = useState<(typeof FILTERS)[number]>('all');
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const shown = items.filter((item) => filter === 'all' || item.class === filter);
  const keep = (): void => {
    if (noteOn === undefined || note.trim() === '') return;
    call('noteOnPerson', { params: { id: noteOn }, body: { text: note.trim() } }).then(
      () => {
        setNote('');
        router.refresh();
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  return (
    <>
      <div className="bar">
        <h2 className="grow">What happened</h2>
        <span className="filters" role="group" aria-label="Show">
          {FILTERS.map((entry) => (
            <button
              key={entry}
              aria-pressed={filter === entry}
              className={filter === entry ? 'on' : ''}
              onClick={() => {
                setFilter(entry);
              }}
            >
              {entry}
            </button>
          ))}
        </span>
      </div>
      {noteOn === undefined ? null : (
        <form
          css={placed({ padding: '0 16px 6px' })}
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <TextField
            fullWidth
            placeholder="Add a note …"
            value={note}
            onChange={(event) => {
              setNote(event.target.value);
            }}
            slotProps={{ htmlInput: { 'aria-label': 'Add a note' } }}
          />
          {problem ? <p className="small in-brick">{problem}</p> : null}
        </form>
      )}
      {shown.map((item, i) => {
        const [glyph, tone] = GLYPH[item.kind] ?? ['·', 'quiet'];
        const before = shown[i - 1];
        return (
          <div key={item.id}>
            {!before || !sameDay(before.at, item.at, zone) ? (
              <div className="day">{sameDay(item.at, now, zone) ? 'Today' : dayText(item.at, zone)}</div>
            ) : null}
            <div className="happening">
              <span className="small quiet">{clockText(item.at, zone)}</span>
              <span className={tone} aria-hidden>
                {glyph}
              </span>
              <div css={placed({ minWidth: 0 })}>
                <span className="strong" css={placed({ overflowWrap: 'anywhere' })}>
                  {item.href ? <Link href={item.href}>{item.title}</Link> : item.title}
                </span>{' '}
                {item.tags.map((tag) => (
                  <Tag key={tag.text} tone={tag.tone}>
                    {tag.text}
                  </Tag>
                ))}
                {item.text ? <div className="quiet">{item.kind === 'reply' ? `“${item.text}”` : item.text}</div> : null}
              </div>
            </div>
          </div>
        );
      })}
      {shown.length === 0 ? (
        <p className="quiet" css={placed({ padding: '8px 16px' })}>
          {filter === 'all' ? 'Nothing has happened yet.' : 'Nothing of that kind yet.'}
        </p>
      ) : null}
    </>
  );
}
