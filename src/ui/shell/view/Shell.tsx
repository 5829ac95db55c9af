'use client';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useState, type ReactNode } from 'react';
import { call, openLive, sayProblem } from '../../client';
import { Live } from '../../client/Live';
import { Problem } from '../../kit/parts';
import { shownAt } from '../state/shown';
import { Rail } from './Rail';
import { Troubles } from './Troubles';
import { useRail, type Around } from './useRail';

interface Props {
  readonly rail: Around;
  readonly who: string;
  readonly children: ReactNode;
}

const DAY_MS = 86_400_000;
const FLOW = /^\/flows\/([0-9a-f-]{36})/;

/** The rail and what stands around every page; the page's stream of events is open as long as this is. */
export function Shell({ rail: given, who, children }: Props) {
  const path = usePathname();
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const flowId = FLOW.exec(path)?.[1];
  useEffect(() => openLive(flowId), [flowId]);
  const rail = useRail(given);
  const move = (days: number) => {
    call('moveClock', { body: { byMs: days * DAY_MS } }).then(
      () => {
        router.refresh();
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  return (
    <div className="shell">
      <Rail rail={rail} name={who} move={move} />
      <main className="main">
        <Live of={shownAt(path) ?? []} />
        <Troubles troubles={rail.troubles.filter((trouble) => trouble.href !== path)} />
        <Problem
          says={problem}
          onClose={() => {
            setProblem(null);
          }}
        />
        {children}
      </main>
    </div>
  );
}
