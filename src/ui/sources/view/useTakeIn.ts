import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Target } from '../../../core/intake';
import { call, sayProblem } from '../../client';
import type { PreviewView } from '../state/preview';
import type { ListView } from './Sources';

export type ListStatus = ListView & {
  readonly problem: string | null;
  readonly flowId: string | null;
  readonly matchingFrom: string | null;
  readonly says: readonly string[];
  readonly matching: readonly string[];
};

const REFRESH_MS = 700;
const COUNT_MS = 1_500;

/** A list before it is taken in: looked at again with every change of its columns, and counted meanwhile. */
export function useTakeIn(status: ListStatus, first: PreviewView | null) {
  const router = useRouter();
  const [preview, setPreview] = useState(first);
  const [problem, setProblem] = useState<string | null>(status.problem);
  const [busy, setBusy] = useState(false);
  const running = status.state === 'queued' || status.state === 'running';
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => {
      router.refresh();
    }, REFRESH_MS);
    return () => {
      clearInterval(timer);
    };
  }, [running, router]);
  const counting = preview !== null && preview.counts === null && status.state === 'looked at';
  useEffect(() => {
    if (!counting || busy) return;
    const timer = setInterval(() => {
      // A look that fails is looked again at the next beat.
      call('previewImport', { params: { id: status.id }, body: {} }).then(
        (answer) => {
          setPreview(answer);
        },
        () => undefined,
      );
    }, COUNT_MS);
    return () => {
      clearInterval(timer);
    };
  }, [counting, busy, status.id]);
  const failed = (error: unknown): void => {
    setProblem(sayProblem(error));
    setBusy(false);
  };
  const look = (body: { readonly matching: Target[] } | { readonly part: string }): void => {
    setBusy(true);
    call('previewImport', { params: { id: status.id }, body }).then((answer) => {
      setPreview(answer);
      setProblem(null);
      setBusy(false);
    }, failed);
  };
  const matching = (preview?.columns ?? []).map((column) => column.target);
  return {
    preview,
    problem,
    setProblem,
    busy,
    running,
    /** A field that a column has is taken from the one that had it; notes and what is left out may be several. */
    change: (column: number, target: Target): void => {
      const next = matching.map((old, i) =>
        i === column ? target : target !== 'note' && target !== 'leave out' && old === target ? 'leave out' : old,
      );
      look({ matching: next });
    },
    /** another sheet of the workbook, or another list of the archive; its columns are guessed anew */
    choosePart: (part: string): void => {
      look({ part });
    },
    take: (flowId: string | null): void => {
      setBusy(true);
      call('startImport', { params: { id: status.id }, body: { matching, flowId } }).then(() => {
        router.refresh();
      }, failed);
    },
  };
}
export type TakingIn = ReturnType<typeof useTakeIn>;
