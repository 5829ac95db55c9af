'use client';
import { useRouter } from 'next/navigation';
import { startTransition, useEffect, useRef, useState } from 'react';
import type { Topic } from '../../api';
import { PAGE_EVERY_MS } from './asking';
import { useLive } from './use-live';

/** Keeps the page as the server has it: it is asked for again when something about one of these topics was told. */
export function Live({ of }: { readonly of: readonly Topic[] }) {
  const router = useRouter();
  const [asked, setAsked] = useState(0);
  const answered = useRef<() => void>(() => undefined);
  // In one transition with the page: it is seen when the page is.
  useEffect(() => {
    answered.current();
  }, [asked]);
  useLive(
    of,
    PAGE_EVERY_MS,
    () =>
      new Promise<void>((resolve) => {
        answered.current = resolve;
        startTransition(() => {
          router.refresh();
          setAsked((times) => times + 1);
        });
      }),
  );
  return null;
}
