'use client';
import type { ReactNode } from 'react';
import type { FirstDayFill, FirstDayGap } from '../../../api';
import { plural } from '../../../core/base';
import Link from '../../kit/Link';
import { Gap } from './Gap';
import type { LetterInHand } from './useLetter';

export interface PartProps {
  readonly gap: FirstDayGap;
  readonly hand: LetterInHand;
  readonly zones: readonly string[];
  readonly mayChange: boolean;
  readonly mayKeepSecrets: boolean;
}

/** A sentence with its gaps. */
export function Words(part: PartProps) {
  return WORDS[part.gap](part);
}

interface BlankProps extends Pick<PartProps, 'gap' | 'hand'> {
  readonly id: string;
  readonly label: string;
  readonly value: string;
  readonly empty: string;
  readonly may: boolean;
  readonly fillOf: (text: string) => FirstDayFill;
  readonly onKeep?: (text: string) => void;
  /** said back while it is typed */
  readonly isRead?: boolean;
}

function Blank({ gap, hand, id, label, value, empty, may, fillOf, onKeep, isRead = false }: BlankProps) {
  const { open, setOpen, busy, read, fill } = hand;
  return (
    <Gap
      label={label}
      value={value}
      empty={empty}
      busy={busy}
      isOpen={open === id}
      mayChange={may}
      onOpen={() => {
        setOpen(id);
      }}
      onLeave={() => {
        setOpen(null);
      }}
      onType={(text) => {
        if (isRead) read(gap, fillOf(text));
      }}
      onKeep={
        onKeep ??
        ((text) => {
          fill(gap, fillOf(text));
        })
      }
    />
  );
}

const WORDS: Readonly<Record<FirstDayGap, (part: PartProps) => ReactNode>> = {
  name: Place,
  where: Place,
  sells: Sells,
  mailbox: Mailbox,
  people: People,
  stages: Stages,
  asked: AskedOfAll,
  good: Good,
  beside: BesideThat,
};

function Place({ gap, hand, mayChange: may }: PartProps) {
  const { letter } = hand;
  const country = new Intl.DisplayNames('en', { type: 'region' }).of(letter.country) ?? letter.country;
  const blank = { gap, hand, may };
  return (
    <>
      We are{' '}
      <Blank {...blank} id="name" label="our name" value={letter.name} empty="who we are" fillOf={(text) => ({ gap: 'name', text })} /> in{' '}
      <Blank
        {...blank}
        id="where"
        label="our place"
        value={country}
        empty="a town, a country"
        fillOf={(text) => ({ gap: 'where', text })}
        isRead
      />
      , so our clock is <Zone hand={hand} mayChange={may} />.
    </>
  );
}

/** The clock: of the country’s own, where it has several. */
function Zone({ hand: { letter, fill, busy }, mayChange }: Pick<PartProps, 'hand' | 'mayChange'>) {
  const zones = letter.zones.includes(letter.zone) ? letter.zones : [letter.zone, ...letter.zones];
  if (zones.length < 2 || !mayChange) return <span className="letter-said">{letter.zone}</span>;
  return (
    <select
      className="letter-choice"
      aria-label="our clock"
      value={letter.zone}
      disabled={busy}
      onChange={(event) => {
        fill('where', { gap: 'zone', text: event.target.value });
      }}
    >
      {zones.map((zone) => (
        <option key={zone} value={zone}>
          {zone}
        </option>
      ))}
    </select>
  );
}

function Sells({ gap, hand, mayChange: may }: PartProps) {
  const { what, whom } = hand.letter.sells;
  const blank = { gap, hand, may };
  return (
    <>
      We sell{' '}
      <Blank {...blank} id="what" label="what we sell" value={what} empty="what" fillOf={(text) => ({ gap: 'sells', what: text, whom })} />{' '}
      to{' '}
      <Blank
        {...blank}
        id="whom"
        label="to whom we sell"
        value={whom}
        empty="to whom"
        fillOf={(text) => ({ gap: 'sells', what, whom: text })}
      />
      .
    </>
  );
}

function Mailbox({ hand: { letter, open, setOpen }, mayKeepSecrets }: PartProps) {
  if (letter.mailbox)
    return (
      <>
        We write from{' '}
        <Link href="/settings/mailboxes" className="letter-gap">
          {letter.mailbox.address}
        </Link>
        .
      </>
    );
  if (!mayKeepSecrets) return 'We write from an address that the owner says.';
  return (
    <>
      We write from{' '}
      <button
        type="button"
        className="letter-gap is-empty"
        aria-expanded={open === 'mailbox'}
        onClick={() => {
          setOpen(open === 'mailbox' ? null : 'mailbox');
        }}
      >
        an address of ours
      </button>
      .
    </>
  );
}

function People({ gap, hand, mayKeepSecrets }: PartProps) {
  return (
    <>
      Our people are{' '}
      <Listed items={hand.letter.people.map(({ name, isHere }) => ({ key: name, text: name, mark: isHere ? '' : 'asked in' }))} /> and{' '}
      <Blank
        gap={gap}
        hand={hand}
        may={mayKeepSecrets}
        id="people"
        label="a colleague"
        value=""
        empty="a colleague"
        fillOf={(text) => ({ gap: 'name', text })}
        onKeep={hand.invite}
      />
      .
    </>
  );
}

function Stages({ gap, hand, mayChange: may }: PartProps) {
  return (
    <>
      A deal goes through{' '}
      <Blank
        gap={gap}
        hand={hand}
        may={may}
        id="stages"
        label="the stages of a deal"
        value={hand.letter.pipeline?.stages.join(' → ') ?? ''}
        empty="Asked → Quoted → Won"
        fillOf={(text) => ({ gap: 'stages', text })}
        isRead
      />
      .
    </>
  );
}

function AskedOfAll({ gap, hand, mayChange: may }: PartProps) {
  const { asked } = hand.letter;
  return (
    <>
      Of every company we want to know{' '}
      <Listed items={asked.map(({ id, label, type }) => ({ key: id, text: label, mark: type, href: `/settings/questions/${id}` }))} />
      {asked.length > 0 ? ' and ' : ''}
      <Blank
        gap={gap}
        hand={hand}
        may={may}
        id="asked"
        label="what we want to know"
        value=""
        empty="one more thing"
        fillOf={(text) => ({ gap: 'asked', text })}
        isRead
      />
      .
    </>
  );
}

function Good({ gap, hand, mayChange: may }: PartProps) {
  const { good } = hand.letter;
  return (
    <>
      A good one <Listed items={good.map((text) => ({ key: text, text, mark: '', href: '/scorecards' }))} />
      {good.length > 0 ? ' and ' : ''}
      <Blank
        gap={gap}
        hand={hand}
        may={may}
        id="good"
        label="what a good one has"
        value=""
        empty="what it has"
        fillOf={(text) => ({ gap: 'good', text })}
        isRead
      />
      .
    </>
  );
}

function BesideThat({ hand }: PartProps) {
  const { calendars, services, daysOff } = hand.letter.beside;
  const gap = (count: number, href: string, said: string, empty: string): ReactNode => (
    <Link href={href} className={count > 0 ? 'letter-gap' : 'letter-gap is-empty'}>
      {count > 0 ? said : empty}
    </Link>
  );
  return (
    <>
      We meet in {gap(calendars, '/sources/watched/new', plural(calendars, 'calendar'), 'a calendar')}, look up missing addresses with{' '}
      {gap(services, '/settings/connections', plural(services, 'service'), 'a service')} and keep still on{' '}
      {gap(daysOff, '/settings', plural(daysOff, 'day off', 'days off'), 'days off')}.
    </>
  );
}

interface ListedItem {
  readonly key: string;
  readonly text: string;
  readonly mark: string;
  readonly href?: string;
}

/** Things that stand already, one after the other. */
function Listed({ items }: { readonly items: readonly ListedItem[] }) {
  return items.map(({ key, text, mark, href }, i) => (
    <span key={key}>
      {i > 0 ? ', ' : ''}
      {href === undefined ? (
        <span className="letter-said">{text}</span>
      ) : (
        <Link href={href} className="letter-said">
          {text}
        </Link>
      )}
      {mark === '' ? null : <span className="letter-mark"> {mark}</span>}
    </span>
  ));
}
