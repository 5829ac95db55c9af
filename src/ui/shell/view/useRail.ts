'use client';
import { useState } from 'react';
import type { Answer } from '../../../api';
import { call, useLive } from '../../client';
import { COUNTED, COUNTS_EVERY_MS } from '../../client/asking';

export type Around = Answer<'readRail'>;

/** What stands around every page, as the server last said: with the page, or since then by itself. */
export function useRail(given: Around): Around {
  const [heard, setHeard] = useState<{ readonly since: Around; readonly around: Around } | null>(null);
  useLive(COUNTED, COUNTS_EVERY_MS, async () => {
    const around = await call('readRail');
    setHeard({ since: given, around });
  });
  return heard !== null && heard.since === given ? heard.around : given;
}
