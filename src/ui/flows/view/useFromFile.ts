import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { Choice } from '../../../core/flow/bundle';
import type { Library } from '../../../core/flow/check';
import { call, sayProblem } from '../../client';
import { needOf, outlook, type Arriving } from '../state/from-file';

export type Opened = Arriving & { readonly fileName: string; readonly name: string; readonly lines: number };
const NEED_ORDER = { choice: 0, look: 1, nothing: 2 } as const;

/** A flow that comes from a file: what it names, what was chosen for each, and how it would stand here. */
export function useFromFile(library: Library) {
  const router = useRouter();
  const [opened, setOpened] = useState<Opened | null>(null);
  const [name, setName] = useState('');
  const [choices, setChoices] = useState<Readonly<Record<string, Choice>>>({});
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const seen = useMemo(() => (opened ? outlook(opened, library, choices) : null), [opened, library, choices]);
  const failed = (error: unknown): void => {
    setBusy(false);
    setProblem(sayProblem(error));
  };
  // What needs a person stands first, whatever is chosen by then.
  const rows = [...(opened?.matches ?? [])]
    .sort((a, b) => NEED_ORDER[needOf(a, a.choice)] - NEED_ORDER[needOf(b, b.choice)])
    .map((match) => ({ match, choice: choices[match.key] ?? match.choice }));
  return {
    opened,
    seen,
    rows,
    leftOpen: rows.filter(({ match, choice }) => needOf(match, choice) === 'choice').length,
    name,
    setName,
    busy,
    problem,
    setProblem,
    choose: (key: string, choice: Choice): void => {
      setChoices({ ...choices, [key]: choice });
    },
    another: (): void => {
      setOpened(null);
    },
    look: (file: File): void => {
      setBusy(true);
      setProblem(null);
      call('lookAtFlowFile', { query: { name: file.name }, file }).then((view) => {
        setBusy(false);
        setOpened({ ...view, fileName: file.name });
        setName(view.freeName);
        setChoices({});
      }, failed);
    },
    takeIn: (): void => {
      if (!opened) return;
      setBusy(true);
      setProblem(null);
      call('takeInFlow', { body: { bundle: { ...opened.bundle, things: opened.bundle.things }, choices, name } }).then((flow) => {
        router.push(`/flows/${flow.id}`);
      }, failed);
    },
  };
}
export type FlowFile = ReturnType<typeof useFromFile>;
export type Seen = NonNullable<FlowFile['seen']>;
