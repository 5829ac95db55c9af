'use client';
import type { ExampleView, FirstDayGap, FirstDayShape } from '../../../api';
import { TopBar } from '../../kit/parts';
import { newDraft } from '../../client/mailbox';
import { MailboxForm } from '../../client/MailboxForm';
import { reachOf, SENTENCES } from '../state/letter';
import { Possible } from './Possible';
import { Sentence } from './Sentence';
import { useLetter } from './useLetter';
import { Words, type PartProps } from './Words';
import './first-day.css';

interface Props {
  readonly first: FirstDayShape;
  readonly example: ExampleView;
  readonly zones: readonly string[];
  readonly mayChange: boolean;
  /** people and mailboxes are an owner's */
  readonly mayKeepSecrets: boolean;
  /** the example comes and goes by an owner */
  readonly mayErase: boolean;
}

/** Which gap of a sentence is written in first. */
const FIRST_GAP: Readonly<Partial<Record<FirstDayGap, string>>> = { name: 'name', where: 'where', sells: 'what' };

/** The first day: what the workspace says of itself, sentence by sentence, with what each makes possible beside it. */
export function FirstDay({ first, example, zones, mayChange, mayKeepSecrets, mayErase }: Props) {
  const hand = useLetter(first);
  const { letter, open, setOpen, beside } = hand;
  const reach = reachOf(letter);
  const stand = reach.filter((entry) => entry.stands).length;
  const rights = { mayChange, mayKeepSecrets, zones };
  return (
    <>
      <TopBar
        title={letter.name}
        tags={
          <span className="quiet">
            first day · {stand} of {SENTENCES.length} sentences stand · kept as you leave a gap
          </span>
        }
      >
        <span className="quiet">Nothing leaves the house before you say so</span>
      </TopBar>
      <div className="cols">
        <section className="col paper grow letter" aria-label="The letter" tabIndex={0}>
          <div className="letter-head small quiet">
            <span>possible</span>
            <span>What every flow, form and message may take as known of us</span>
          </div>
          {reach.map((entry) => (
            <Sentence
              key={entry.gap}
              reach={entry}
              note={entry.gap === 'where' && !letter.notes.name.stands ? letter.notes.name : letter.notes[entry.gap]}
              beside={beside?.gap === entry.gap ? beside : null}
              isOpen={open !== null && sentenceAt(open) === entry.gap}
              {...(entry.gap === 'good' ? { onChoose: (text: string) => hand.fill('good', { gap: 'good', text }) } : {})}
              more={<More gap={entry.gap} hand={hand} {...rights} />}
            >
              <Words gap={entry.gap} hand={hand} {...rights} />
            </Sentence>
          ))}
        </section>
        <Possible
          possible={letter.possible}
          example={example}
          mayErase={mayErase}
          onGap={(gap) => {
            setOpen(FIRST_GAP[gap] ?? gap);
          }}
        />
      </div>
    </>
  );
}

/** The sentence that a gap stands in. */
const sentenceAt = (gap: string): FirstDayGap =>
  gap === 'name' || gap === 'zone' ? 'where' : gap === 'what' || gap === 'whom' ? 'sells' : (gap as FirstDayGap);

/** What opens beneath a sentence: the ways of a mailbox, and what else could make one good. */
function More({ gap, hand, zones, mayChange, mayKeepSecrets }: PartProps) {
  const { letter, open, setOpen, busy, fill } = hand;
  if (gap === 'mailbox' && open === 'mailbox' && mayKeepSecrets && letter.mailbox === null)
    return (
      <MailboxForm
        first={newDraft(letter.zone, letter.name)}
        hasPassword={false}
        zones={zones}
        busy={busy}
        mayChange
        onKeep={hand.keepMailbox}
        onLeave={() => {
          setOpen(null);
        }}
      />
    );
  if (gap !== 'good' || letter.offers.length === 0 || !mayChange) return null;
  return (
    <p className="small quiet">
      or:{' '}
      {letter.offers.map((offer, i) => (
        <span key={offer}>
          {i > 0 ? ' · ' : ''}
          <button
            type="button"
            className="linkish"
            disabled={busy}
            onClick={() => {
              fill('good', { gap: 'good', text: offer });
            }}
          >
            {offer}
          </button>
        </span>
      ))}
    </p>
  );
}
