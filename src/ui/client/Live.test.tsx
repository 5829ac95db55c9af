/**
 * @jest-environment jsdom
 *
 * A page that asks again for what it shows.
 */
import { act, render } from '@testing-library/react';
import { Live } from './Live';
import { openLive } from './live';

const refresh = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh }) }));

class Source {
  static last: Source | undefined;
  onmessage: ((message: { readonly data: string }) => void) | null = null;
  constructor() {
    Source.last = this;
  }
  close(): void {
    Source.last = undefined;
  }
  say(topics: readonly string[]): void {
    this.onmessage?.({ data: JSON.stringify({ kind: 'new', topics }) });
  }
}

beforeEach(() => {
  jest.useFakeTimers();
  refresh.mockClear();
  Object.assign(globalThis, { EventSource: Source });
});
afterEach(() => {
  jest.useRealTimers();
});
/** In small steps, as a page draws: what takes long is asked for more rarely. */
async function later(ms: number): Promise<void> {
  for (let gone = 0; gone < ms; gone += 50) await act(() => jest.advanceTimersByTimeAsync(50));
}

test('it asks once for what was told together, and not for what others show', async () => {
  const close = openLive(undefined);
  const { unmount } = render(<Live of={['desk', 'messages']} />);
  Source.last?.say(['flows', 'flow:1']);
  await later(5_000);
  expect(refresh).toHaveBeenCalledTimes(0);
  Source.last?.say(['desk']);
  Source.last?.say(['messages', 'thread:1']);
  await later(5_000);
  expect(refresh).toHaveBeenCalledTimes(1);
  Source.last?.say(['everything']);
  await later(5_000);
  expect(refresh).toHaveBeenCalledTimes(2);
  unmount();
  Source.last?.say(['desk']);
  await later(5_000);
  expect(refresh).toHaveBeenCalledTimes(2);
  close();
});

test('a page that shows something else from now on hears of that', async () => {
  const close = openLive(undefined);
  const { rerender } = render(<Live of={['desk']} />);
  rerender(<Live of={['flow:7']} />);
  Source.last?.say(['desk']);
  await later(5_000);
  expect(refresh).toHaveBeenCalledTimes(0);
  Source.last?.say(['flow:*']);
  await later(5_000);
  expect(refresh).toHaveBeenCalledTimes(1);
  close();
});
