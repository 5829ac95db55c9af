import { steady } from './steady';

const row = (id: string, says = id) => ({ id, says });
const see = (kept: string[], now: ReturnType<typeof row>[]) =>
  steady(
    kept.map((id) => row(id)),
    now,
    (item) => item.id,
  );

describe('a list that somebody looks at', () => {
  test('keeps its places when rows come, go and change', () => {
    const seen = see(['a', 'b', 'c'], [row('x'), row('c', 'changed'), row('a'), row('y')]);
    expect(seen.rows).toEqual([row('a'), row('b'), row('c', 'changed')]);
    expect([...seen.gone]).toEqual(['b']);
    expect(seen.fresh).toBe(2);
  });

  test('is taken as it is when nothing of it is left, or nothing was shown', () => {
    expect(see(['a'], [row('x')])).toEqual({ rows: [row('x')], gone: new Set(), fresh: 0 });
    expect(see([], [row('x')]).rows).toEqual([row('x')]);
    expect(see(['a'], []).rows).toEqual([]);
  });
});
