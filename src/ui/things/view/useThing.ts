'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { ThingTrial, ThingView } from '../../../api';
import { call, sayProblem } from '../../client';
import type { SaidText } from '../../kit/parts';
import type { StageMoves } from '../state/stages';

const PAUSE_MS = 350;
const STEPS = 100;

export interface ThingState<B> {
  readonly view: ThingView;
  readonly body: B;
  readonly trial: ThingTrial | null;
  /** what is shown is not of what is typed yet */
  readonly trying: boolean;
  readonly isChanged: boolean;
  readonly busy: boolean;
  readonly said: SaidText | null;
  readonly canUndo: boolean;
  readonly set: (body: B) => void;
  readonly undo: () => void;
  readonly keep: (says: string, moves?: StageMoves) => void;
  readonly rename: (name: string) => void;
  readonly retire: (retired: boolean) => void;
  readonly say: (said: SaidText | null) => void;
}

/** The draft of one thing: tried after each change, kept when told; a change of somebody else's is never written over. */
export function useThing<B extends ThingView['body']>(first: ThingView): ThingState<B> {
  const router = useRouter();
  const [view, setView] = useState(first);
  const [steps, setSteps] = useState<readonly B[]>([first.body as B]);
  const [trial, setTrial] = useState<ThingTrial | null>(null);
  const [trying, setTrying] = useState(true);
  const [busy, setBusy] = useState(false);
  const [said, say] = useState<SaidText | null>(null);
  const asked = useRef(0);
  const body = steps.at(-1) ?? (view.body as B);
  const isChanged = JSON.stringify(body) !== JSON.stringify(view.body);

  useEffect(() => {
    const mine = ++asked.current;
    setTrying(true);
    const timer = setTimeout(() => {
      call('tryThing', { body: { kind: view.kind, id: view.id, body } }).then(
        (found) => {
          if (mine !== asked.current) return;
          setTrial(found);
          setTrying(false);
        },
        (error: unknown) => {
          if (mine !== asked.current) return;
          setTrying(false);
          say({ calm: false, text: sayProblem(error) });
        },
      );
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [body, view.kind, view.id]);

  useEffect(() => {
    if (!isChanged) return undefined;
    const warn = (event: BeforeUnloadEvent): void => {
      event.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => {
      window.removeEventListener('beforeunload', warn);
    };
  }, [isChanged]);

  const set = useCallback((next: B) => {
    setSteps((before) => [...before, next].slice(-STEPS));
  }, []);
  const undo = useCallback(() => {
    setSteps((before) => (before.length > 1 ? before.slice(0, -1) : before));
  }, []);
  const done = (promise: Promise<ThingView>, text: (view: ThingView) => string, kept: boolean): void => {
    setBusy(true);
    promise.then(
      (next) => {
        setBusy(false);
        setView(next);
        if (kept) setSteps([next.body as B]);
        say({ calm: true, text: text(next) });
        router.refresh();
      },
      (error: unknown) => {
        setBusy(false);
        say({ calm: false, text: sayProblem(error) });
      },
    );
  };
  return {
    view,
    body,
    trial,
    trying,
    isChanged,
    busy,
    said,
    canUndo: steps.length > 1,
    set,
    undo,
    say,
    keep: (says, moves = {}) => {
      done(
        call('keepThing', { params: { id: view.id }, body: { body, base: view.no, says, moves } }),
        (next) =>
          `Version ${next.no} is kept.${next.uses.some((use) => use.behind) ? ' Live flows go on with the version they were released with until they are released again.' : ''}`,
        true,
      );
    },
    rename: (name) => {
      const before = view.name;
      done(
        call('renameThing', { params: { id: view.id }, body: { name } }),
        () => `${before} is called ${name} now; drafts and plans follow.`,
        !isChanged,
      );
    },
    retire: (retired) => {
      done(
        call('retireThing', { params: { id: view.id }, body: { retired } }),
        () => (retired ? 'It is retired: flows can no longer be released with it. Nothing is deleted.' : 'It is in use again.'),
        false,
      );
    },
  };
}
