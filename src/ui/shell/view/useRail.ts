'use client';
import { useState } from 'react';
import { call, useLive } from '../../client';
import { COUNTED, COUNTS_EVERY_MS } from '../../client/asking';
import type { RailView } from './Rail';
import type { TroubleView } from './Troubles';

export interface Around extends RailView {
  readonly troubles: readonly TroubleView[];
}

/** What stands around every page, as the server last said: with the page, or since then by itself. */
export function useRail(given: Around): Around {
  const [heard, setHeard] = useState<{ readonly since: Around; readonly around: Around } | null>(null);
  useLive(COUNTED, COUNTS_EVERY_MS, async () => {
    const said = await call('readRail');
    setHeard({
      since: given,
      around: { ...said, now: Date.parse(said.now), target: said.target === null ? null : Date.parse(said.target) },
    });
  });
  return heard !== null && heard.since === given ? heard.around : given;
}
