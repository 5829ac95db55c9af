/** A question while it is changed and taught: what is asked of the server, what was there before, what is under way. */
import { useRef, useState } from 'react';
import { call, sayProblem } from '../../client';
import { alikeAsTyped, corrections, shown, type Place, type QuestionDraft, type QuestionView } from '../state/teach';

export interface QuestionAtWork {
  readonly view: QuestionView;
  readonly isChanged: boolean;
  readonly mayUndo: boolean;
  /** what is being done, in words; null for nothing */
  readonly busy: string | null;
  readonly problem: string | null;
  readonly at: number;
  readonly setAt: (at: number) => void;
  readonly closeProblem: () => void;
  readonly change: (next: QuestionDraft) => void;
  readonly undo: () => void;
  readonly show: (which: Place | undefined, verdict: 'this' | 'not', reason?: string) => void;
  readonly goTo: (host: string) => void;
  readonly step: (by: number) => void;
  readonly keep: () => void;
  readonly bringBack: () => void;
  readonly readMore: () => Promise<void>;
  readonly useCorrections: () => Promise<void>;
}

export function useQuestion(first: QuestionView, mayChange: boolean): QuestionAtWork {
  const [view, setView] = useState(first);
  const [kept, setKept] = useState<QuestionDraft>(first.draft);
  const [past, setPast] = useState<readonly QuestionDraft[]>([]);
  const [busy, setBusy] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const turn = useRef(0);
  const { draft, host } = view;
  const changed = JSON.stringify(draft) !== JSON.stringify(kept);

  const asked = (work: Promise<QuestionView>, says: string, then?: (next: QuestionView) => void): void => {
    const mine = (turn.current += 1);
    setBusy(says);
    work.then(
      (next) => {
        // An older answer that comes late is not shown over a newer one.
        if (mine !== turn.current) return;
        setView(next);
        setBusy(null);
        setProblem(null);
        then?.(next);
      },
      (error: unknown) => {
        if (mine !== turn.current) return;
        setBusy(null);
        setProblem(sayProblem(error));
      },
    );
  };
  const tryOut = (next: QuestionDraft, on: string | null = host): void => {
    asked(call('tryQuestion', { params: { name: view.id }, body: { draft: next, host: on } }), 'reading the known sites again …');
  };
  const change = (next: QuestionDraft): void => {
    if (!mayChange) return;
    setPast([...past, draft]);
    setView({ ...view, draft: next });
    tryOut(next);
  };
  const undo = (): void => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    setView({ ...view, draft: last });
    tryOut(last);
  };
  const show = (which: Place | undefined, verdict: 'this' | 'not', reason?: string): void => {
    if (which && host !== null) change(shown(draft, host, which, verdict, reason));
  };
  const step = (by: number): void => {
    const hosts = view.sites.map((site) => site.host);
    const next = hosts[(hosts.indexOf(host ?? '') + by + hosts.length) % hosts.length];
    if (next === undefined) return;
    setAt(0);
    tryOut(draft, next);
  };
  const keep = (): void => {
    asked(call('keepQuestion', { params: { name: view.id }, body: draft }), 'keeping …', (next) => {
      setKept(next.draft);
      setPast([]);
    });
  };
  const bringBack = (): void => {
    asked(call('undoQuestion', { params: { name: view.id } }), 'bringing it back …', (next) => {
      setKept(next.draft);
      setPast([]);
    });
  };
  const readMore = async (): Promise<void> => {
    const [field, all] = [view.id, view.unread];
    for (const [i, company] of all.entries()) {
      setBusy(`reading ${company.name}, ${i + 1} of ${all.length} …`);
      try {
        await call('recheckFact', { params: { id: company.id }, body: { field } });
      } catch (error) {
        setProblem(sayProblem(error));
      }
    }
    tryOut(draft, null);
  };
  const useCorrections = async (): Promise<void> => {
    const { next, unsaid, problem: broke } = await examplesFromCorrections(view, setBusy);
    if (broke !== null) setProblem(broke);
    if (next === draft) setBusy(null);
    else change(next);
    if (unsaid.length > 0)
      setProblem(
        `No sentence that could answer says what was set by hand for ${unsaid.join(', ')}: words the question goes by would show where to look.`,
      );
  };
  return {
    view,
    isChanged: changed,
    mayUndo: past.length > 0,
    busy,
    problem,
    at,
    setAt,
    closeProblem: () => setProblem(null),
    change,
    undo,
    show,
    goTo: (next) => {
      setAt(0);
      tryOut(draft, next);
    },
    step,
    keep,
    bringBack,
    readMore,
    useCorrections,
  };
}

interface FromCorrections {
  readonly next: QuestionDraft;
  /** sites on which no sentence says what was set by hand */
  readonly unsaid: readonly string[];
  readonly problem: string | null;
}

/** Looks on each site whose answer was set by hand for the sentence that says it, and shows that as an example. */
async function examplesFromCorrections(view: QuestionView, says: (busy: string) => void): Promise<FromCorrections> {
  let next = view.draft;
  let problem: string | null = null;
  const unsaid: string[] = [];
  const open = corrections(view);
  for (const [i, site] of open.entries()) {
    says(`looking at ${site.name}, ${i + 1} of ${open.length} …`);
    try {
      const there = await call('tryQuestion', { params: { name: view.id }, body: { draft: next, host: site.host } });
      const place = there.places.find(({ value }) => alikeAsTyped(value, site.known));
      if (place) next = shown(next, site.host, place, 'this');
      else unsaid.push(site.name);
    } catch (error) {
      problem = sayProblem(error);
    }
  }
  return { next, unsaid, problem };
}
