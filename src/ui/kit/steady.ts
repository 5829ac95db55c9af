'use client';
import { useState } from 'react';

export interface Steady<T> {
  /** the rows as they stood, each as it is now */
  readonly rows: readonly T[];
  /** ids of rows that are there no more; they keep their place so that nothing moves under the pointer */
  readonly gone: ReadonlySet<string>;
  /** how many have come that are not shown yet */
  readonly fresh: number;
}

/** What is shown of `now` to somebody who is looking at `kept`: the same rows at the same places. Pure. */
export function steady<T>(kept: readonly T[], now: readonly T[], idOf: (item: T) => string): Steady<T> {
  const current = new Map(now.map((item) => [idOf(item), item]));
  const known = new Set(kept.map(idOf));
  const gone = new Set([...known].filter((id) => !current.has(id)));
  // Where nothing that was shown is left, there is no place to keep.
  if (gone.size === known.size) return { rows: now, gone: new Set(), fresh: 0 };
  return {
    rows: kept.map((item) => current.get(idOf(item)) ?? item),
    gone,
    fresh: now.filter((item) => !known.has(idOf(item))).length,
  };
}

/** Rows that keep their places until `take` shows the list as it is now. */
export function useSteady<T>(items: readonly T[], idOf: (item: T) => string): Steady<T> & { readonly take: () => void } {
  const [kept, setKept] = useState(items);
  return {
    ...steady(kept, items, idOf),
    take: () => {
      setKept(items);
    },
  };
}

/** The same for a list that only stands still while the pointer is in it. */
export function useSteadyUnderPointer<T>(
  items: readonly T[],
  idOf: (item: T) => string,
): { readonly rows: readonly T[]; readonly hold: { readonly onPointerEnter: () => void; readonly onPointerLeave: () => void } } {
  const [kept, setKept] = useState<readonly T[] | null>(null);
  return {
    rows: kept ? steady(kept, items, idOf).rows : items,
    hold: {
      onPointerEnter: () => {
        setKept(items);
      },
      onPointerLeave: () => {
        setKept(null);
      },
    },
  };
}
