'use client';
import type { ReactNode } from 'react';
import { useSteadyUnderPointer } from './steady';

interface Props<T> {
  readonly items: readonly T[];
  readonly idOf: (item: T) => string;
  readonly children: (item: T) => ReactNode;
}

/** The body of a table whose rows may come and go by themselves: they stay where they are while the pointer is on them. */
export function SteadyBody<T>({ items, idOf, children }: Props<T>) {
  const { rows, hold } = useSteadyUnderPointer(items, idOf);
  return <tbody {...hold}>{rows.map(children)}</tbody>;
}
