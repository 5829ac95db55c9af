'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useTransition } from 'react';
import type { Topic } from '../../api';
import { PAGE_EVERY_MS } from './asking';
import { useLive } from './use-live';

/** Keeps the page as the server has it: it is asked for again when something about one of these topics was told. */
export function Live({ of }: { readonly of: readonly Topic[] }) {
  const router = useRouter();
  const [isAsking, startAsking] = useTransition();
  const answered = useRef<() => void>(() => undefined);
  useEffect(() => {
    if (!isAsking) answered.current();
  }, [isAsking]);
  useLive(
    of,
    PAGE_EVERY_MS,
    () =>
      new Promise<void>((resolve) => {
        answered.current = resolve;
        startAsking(() => {
          router.refresh();
        });
      }),
  );
  return null;
}
