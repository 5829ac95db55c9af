'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useTransition } from 'react';
import type { Topic } from '../../api';
import { useLive } from './use-live';

/** A page is asked for again at most this often, however much happens. */
const EVERY_MS = 1_500;

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
    EVERY_MS,
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
