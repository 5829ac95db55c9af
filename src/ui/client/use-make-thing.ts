'use client';
import { useRouter } from 'next/navigation';
import { call } from './index';
import { useAsk, type Asking } from './use-ask';

export interface Making extends Pick<Asking, 'busy' | 'said' | 'hush'> {
  readonly make: (wanted: Parameters<typeof call<'makeThing'>>[1]['body']) => void;
}

/** Makes a named thing and opens its page, which lies under `href`. */
export function useMakeThing(href: string): Making {
  const router = useRouter();
  const { busy, said, hush, ask } = useAsk();
  return {
    busy,
    said,
    hush,
    make: (wanted) => {
      ask(call('makeThing', { body: wanted }), null, (made) => {
        router.push(`${href}/${made.id}`);
      });
    },
  };
}
