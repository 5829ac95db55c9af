import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { useFields } from '../../client/fields';
import type { SaidText } from '../../kit/parts';
import { criteriaOf, EMPTY, type Asked, type Look } from '../state/directory';

export interface TakeAsk {
  readonly most: number;
  readonly onlyNew: boolean;
  readonly flow: { readonly id: string; readonly name: string } | null;
}

/** A search of the directory: what is asked, what was found, and taking in. */
export function useDirectory() {
  const router = useRouter();
  const [asked, setAsked] = useState(EMPTY);
  const [look, setLook] = useState<Look | null>(null);
  const [isStale, setStale] = useState(false);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<SaidText | null>(null);
  const inDirectory = useFields()
    .all('company')
    .filter((entry) => entry.inDirectory);
  // A described service is asked by words, role, place and country; what the directory knows besides, it does not.
  const known = asked.service === '' ? inDirectory : [];
  const criteria = criteriaOf(asked, known);
  const failed = (error: unknown): void => {
    setBusy(false);
    setSaid({ calm: false, text: sayProblem(error) });
  };
  /** What is found is of other criteria from now on; of the other kind, or from elsewhere, it means nothing. */
  const ask = (change: Partial<Asked>): void => {
    setAsked({ ...asked, ...change });
    if (change.what === undefined && change.service === undefined) setStale(true);
    else setLook(null);
  };
  const search = (): void => {
    setBusy(true);
    call('lookInDirectory', { body: criteria }).then((found) => {
      setBusy(false);
      setStale(false);
      setLook(found);
    }, failed);
  };
  const take = ({ most, onlyNew, flow }: TakeAsk): void => {
    setBusy(true);
    call('takeFromDirectory', { body: { criteria, most, onlyNew, flowId: flow?.id ?? null } }).then(({ taken, known: before, started }) => {
      setBusy(false);
      const who = asked.what === 'people' ? plural(taken, 'person', 'people') : plural(taken, 'company', 'companies');
      const onTheWay = flow === null ? '' : `, ${started} on the way through ${flow.name}`;
      setSaid({ calm: true, text: `${who} taken in${before > 0 ? `, ${before} known already` : ''}${onTheWay}.` });
      search();
      router.refresh();
    }, failed);
  };
  return { asked, ask, look, isStale, busy, said, setSaid, known, search, take };
}
export type DirectorySearch = ReturnType<typeof useDirectory>;
