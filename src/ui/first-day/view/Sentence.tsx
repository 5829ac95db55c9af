/** @jsxImportSource @emotion/react */
'use client';
import type { ReactNode } from 'react';
import type { FirstDayShape } from '../../../api';
import type { Reach } from '../state/letter';
import type { Beside } from './useLetter';

const STEP = 3.4;
const width = (count: number): number => 2 + count * STEP;

/** The ribbon beside a sentence: as wide as what is possible by then; dashed, how wide it could be. */
function Ribbon({ before, now, most }: Pick<Reach, 'before' | 'now' | 'most'>) {
  const [from, to, could] = [width(before), width(now), width(most)];
  return (
    <svg className="letter-ribbon" viewBox="0 0 40 100" preserveAspectRatio="none" aria-hidden>
      <path d={`M0 0 H${from} C${from} 26 ${to} 8 ${to} 34 V100 H0 Z`} className="is-filled" />
      {could > to ? <path d={`M${could} 34 V100`} className="is-dashed" /> : null}
    </svg>
  );
}

interface Props {
  readonly reach: Reach;
  readonly note: FirstDayShape['notes'][keyof FirstDayShape['notes']];
  readonly beside: Beside | null;
  readonly isOpen: boolean;
  readonly onChoose?: (says: string) => void;
  readonly more?: ReactNode;
  readonly children: ReactNode;
}

/** A sentence of the letter, with what stands in its margin. */
export function Sentence({ reach, note, beside, isOpen, onChoose, more, children }: Props) {
  return (
    <section className={isOpen ? 'letter-row is-open' : 'letter-row'} aria-label={`sentence ${reach.gap}`}>
      <div className="letter-side">
        <Ribbon before={reach.before} now={reach.now} most={reach.most} />
        <span className="letter-count" aria-hidden>
          {reach.stands ? reach.now : '○'}
        </span>
      </div>
      <div className="letter-text">
        <p>{children}</p>
      </div>
      <div className="letter-note small" role="status">
        {beside ? <Understood beside={beside} {...(onChoose ? { onChoose } : {})} /> : <Note note={note} />}
      </div>
      <div className="letter-more">{more}</div>
    </section>
  );
}

function Note({ note }: Pick<Props, 'note'>) {
  return (
    <span className={note.stands ? '' : 'quiet'}>
      {note.stands ? <span className="in-moss">✓ </span> : '○ '}
      {note.says}
    </span>
  );
}

function Understood({ beside, onChoose }: { readonly beside: Beside; readonly onChoose?: (says: string) => void }) {
  if (!beside.ok) return <span className="in-brick">{beside.says[0]}</span>;
  if (beside.link !== undefined)
    return (
      <>
        {beside.says[0]} <span className="code letter-link">{beside.link}</span>
      </>
    );
  const several = beside.says.length > 1;
  return (
    <>
      <span className="quiet">{several ? 'may mean' : 'understood as'}</span>
      {beside.says.map((says) => (
        <span key={says} className="letter-reading">
          <span className="code">{says}</span>{' '}
          {several && onChoose ? (
            <button
              type="button"
              className="linkish"
              // Before the gap is left and its words are kept as they are.
              onMouseDown={(event) => {
                event.preventDefault();
              }}
              onClick={() => {
                onChoose(says);
              }}
            >
              this
            </button>
          ) : null}
        </span>
      ))}
    </>
  );
}
