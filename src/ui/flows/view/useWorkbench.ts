import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { Library } from '../../../core/flow/check';
import { deedsFor } from '../state/deeds';
import { figuresOf, readScript, type Editing } from '../state/script';
import type { LineCount, Range, Trial } from '../state/types';
import type { SpecimenPerson } from './Specimens';
import { useDraft } from './useDraft';
import { useTrial } from './useTrial';
import type { LiveState } from './LiveTag';

export interface WorkbenchFlow {
  readonly id: string;
  readonly draftText: string;
  readonly draftNo: number;
  /** texts of the drafts saved so far, oldest first */
  readonly drafts: readonly string[];
  readonly live: (LiveState & { readonly text: string }) | null;
  readonly underWay: number;
}
export interface WorkbenchProps {
  readonly flow: WorkbenchFlow;
  readonly library: Library;
  readonly trials: readonly Trial[];
  readonly people: readonly SpecimenPerson[];
  readonly live: Readonly<Record<Exclude<Range, 'trial'>, readonly LineCount[]>>;
  readonly zone: string;
  readonly userId: string;
  readonly mayEdit: boolean;
  readonly mayRelease: boolean;
}
export type View = 'script' | 'sheet' | 'text';

/** What a trial's lookups may cost until somebody says otherwise. */
const USUAL_LIMIT_MICRO = 2_000_000;

/** A flow on the workbench: its draft, its trials, where the numbers come from, and what is chosen. */
export function useWorkbench({ flow, library, trials: firstTrials, people: firstPeople, live, userId, mayEdit }: WorkbenchProps) {
  const router = useRouter();
  const drafting = useDraft({ id: flow.id, text: flow.draftText, base: flow.draftNo, saved: flow.drafts, userId, mayEdit });
  const { state: draft, send, saveNow } = drafting;
  const trialling = useTrial(flow.id, firstTrials);
  const [people, setPeople] = useState(firstPeople);
  const [view, setView] = useState<View>('script');
  const [range, setRange] = useState<Range>(firstTrials.length > 0 || flow.underWay === 0 ? 'trial' : 'all');
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const [specimen, setSpecimen] = useState(0);
  const [editing, setEditing] = useState<Editing>(null);
  const [limitMicro, setLimitMicro] = useState(trialling.trials[0]?.limitMicro ?? USUAL_LIMIT_MICRO);

  const script = useMemo(() => readScript(draft.text, library), [draft.text, library]);
  const trial = trialling.trials[0];
  const counts = range === 'trial' ? (trial?.lines ?? []) : live[range];
  const figures = useMemo(() => figuresOf(script.rows, counts), [script.rows, counts]);
  const row =
    script.rows.find((entry) => entry.mark === chosen) ??
    script.rows.find((entry) => entry.kind === 'line' && entry.line.step.verb === 'score') ??
    script.rows[0];
  const line = row?.kind === 'line' ? row.mark : undefined;
  const deeds = useMemo(() => deedsFor(draft.text, mayEdit ? line : undefined), [draft.text, line, mayEdit]);
  const errors = script.findings.filter((finding) => finding.severity === 'error').length;
  return {
    drafting,
    draft,
    trialling,
    trial,
    people,
    setPeople,
    view,
    setView,
    range,
    setRange,
    setChosen,
    specimen,
    setSpecimen,
    editing,
    setEditing,
    limitMicro,
    setLimitMicro,
    script,
    figures,
    row,
    line,
    deeds,
    errors,
    warnings: script.findings.length - errors,
    isStale: trial !== undefined && trial.text !== draft.text,
    mayTry: mayEdit && !trialling.running && errors === 0,
    change: (text: string): void => {
      send({ kind: 'change', text });
    },
    tryOut: async (afresh = false): Promise<void> => {
      setRange('trial');
      if (!(await saveNow())) return;
      await trialling.start({ recordIds: people.map((person) => person.id), limitMicro, afresh });
    },
    /** What is typed is saved first: the release page looks at the draft as it is stored. */
    toRelease: async (): Promise<void> => {
      if (await saveNow()) router.push(`/flows/${flow.id}/release`);
    },
    step: (by: number): void => {
      const at = script.rows.findIndex((entry) => entry.mark === row?.mark);
      setChosen(script.rows[Math.max(0, Math.min(script.rows.length - 1, at + by))]?.mark);
    },
  };
}
export type Bench = ReturnType<typeof useWorkbench>;
