/** When a page asks again for what it shows. */
import { asking } from './asking';

beforeEach(() => jest.useFakeTimers({ now: 0 }));
afterEach(() => {
  jest.useRealTimers();
});
const later = (ms: number): Promise<void> => jest.advanceTimersByTimeAsync(ms);
/** Asks that take so long each; when they began. */
const page = (tookMs: number, everyMs = 1_000) => {
  const began: number[] = [];
  const it = asking(['desk', 'flow:1'], everyMs, async () => {
    began.push(performance.now());
    await new Promise((resolve) => setTimeout(resolve, tookMs));
  });
  return { began, ...it };
};

test('what is told together is asked for once, soon; what is about something else is not', async () => {
  const { began, heard } = page(10);
  heard(['desk']);
  heard(['flow:1']);
  heard(['flow:2', 'records']);
  await later(5_000);
  expect(began).toEqual([250]);
});

test('however much is told, it is asked at most so often, and what was told last is always asked for', async () => {
  const { began, heard } = page(10);
  for (let at = 0; at < 3_000; at += 50) {
    heard(['desk']);
    await later(50);
  }
  await later(5_000);
  expect(began.length).toBeLessThanOrEqual(5);
  expect(began.at(-1)).toBeGreaterThanOrEqual(2_950);
  began.slice(1).forEach((at, i) => {
    expect(at - (began[i] ?? 0)).toBeGreaterThanOrEqual(1_000);
  });
});

test('a slow server is asked more rarely, and never twice at once', async () => {
  const { began, heard } = page(500);
  for (let at = 0; at < 12_000; at += 100) {
    heard(['everything']);
    await later(100);
  }
  expect(began).toEqual([250, 5_250, 10_250]);
});

test('an answer that fails is not the end', async () => {
  let asked = 0;
  const { heard } = asking(['desk'], 1_000, () => {
    asked += 1;
    throw new Error('away');
  });
  heard(['desk']);
  await later(300);
  heard(['desk']);
  await later(3_000);
  expect(asked).toBe(2);
});

test('who has left asks no more', async () => {
  const { began, heard, stop } = page(10);
  heard(['desk']);
  stop();
  heard(['desk']);
  await later(5_000);
  expect(began).toEqual([]);
});
