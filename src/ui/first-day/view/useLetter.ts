'use client';
import { useEffect, useRef, useState } from 'react';
import type { FirstDayFill, FirstDayGap, FirstDayShape } from '../../../api';
import { call, sayProblem } from '../../client';
import { askOf, type MailboxDraft } from '../../client/mailbox';
import { readColleague } from '../state/letter';

export interface Beside {
  readonly gap: FirstDayGap;
  readonly ok: boolean;
  readonly says: readonly string[];
  /** an address that is shown once, to be handed on */
  readonly link?: string;
}

export interface LetterInHand {
  readonly letter: FirstDayShape;
  readonly busy: boolean;
  /** the gap that is open: a sentence may have several */
  readonly open: string | null;
  readonly setOpen: (gap: string | null) => void;
  /** what stands beside a sentence in place of its note */
  readonly beside: Beside | null;
  readonly read: (gap: FirstDayGap, fill: FirstDayFill) => void;
  readonly fill: (gap: FirstDayGap, fill: FirstDayFill) => void;
  readonly invite: (text: string) => void;
  readonly keepMailbox: (draft: MailboxDraft) => void;
}

const READ_MS = 250;

/** The letter as it is filled: each gap is understood while it is typed and kept when it is left. */
export function useLetter(first: FirstDayShape): LetterInHand {
  const [letter, setLetter] = useState(first);
  const [seen, setSeen] = useState(first);
  const [busy, setBusy] = useState(false);
  const [open, setOpen] = useState<string | null>(null);
  const [beside, setBeside] = useState<Beside | null>(null);
  const waiting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  // The page looked again: somebody else may have filled a gap meanwhile.
  if (seen !== first) {
    setSeen(first);
    setLetter(first);
  }
  useEffect(
    () => () => {
      clearTimeout(waiting.current);
    },
    [],
  );
  const work = (gap: FirstDayGap, asked: Promise<FirstDayShape>, after?: () => Beside): void => {
    clearTimeout(waiting.current);
    setBusy(true);
    asked.then(
      (next) => {
        setBusy(false);
        setLetter(next);
        setBeside(after?.() ?? null);
        setOpen(null);
      },
      (error: unknown) => {
        setBusy(false);
        setBeside({ gap, ok: false, says: [sayProblem(error)] });
      },
    );
  };
  return {
    letter,
    busy,
    open,
    setOpen: (gap) => {
      setBeside(null);
      setOpen(gap);
    },
    beside,
    read: (gap, fill) => {
      clearTimeout(waiting.current);
      waiting.current = setTimeout(() => {
        call('readFirstDay', { body: fill }).then(
          (read) => {
            setBeside({ gap, ...read });
          },
          // What is typed half is understood when it is typed.
          () => {
            setBeside(null);
          },
        );
      }, READ_MS);
    },
    fill: (gap, fill) => {
      work(gap, call('fillFirstDay', { body: fill }));
    },
    invite: (text) => {
      const who = readColleague(text);
      if (!who) {
        setBeside({ gap: 'people', ok: false, says: ['a name and an e-mail address: Ivo Castell, ivo@firm.example'] });
        return;
      }
      let link = '';
      const asked = call('invite', { body: { ...who, role: 'builder', title: '' } }).then((answer) => {
        ({ link } = answer);
        return call('getFirstDay', {});
      });
      work('people', asked, () => ({
        gap: 'people',
        ok: true,
        says: [`${who.name || who.email} comes in by this address, shown once:`],
        link,
      }));
    },
    keepMailbox: (draft) => {
      const name = draft.name.trim();
      work(
        'mailbox',
        call('keepMailbox', { params: { name }, body: askOf(draft) })
          .then(() => call('checkMailbox', { params: { name } }))
          .then(() => call('getFirstDay', {})),
      );
    },
  };
}
