import fc from 'fast-check';
import { Layers } from './layers';

/** One branch: names it learns, and branches inside it, after which it may learn from them all. */
interface Branch {
  readonly names: readonly string[];
  readonly inner: readonly Branch[];
}
const { branch } = fc.letrec<{ branch: Branch }>((tie) => ({
  branch: fc.record({
    names: fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 4 }),
    inner: fc.oneof({ depthSize: 'small', withCrossShrink: true }, fc.constant([]), fc.array(tie('branch'), { maxLength: 3 })),
  }),
}));

/** The same by copying: what a branch starts with is a copy of all that is known. */
function byCopies(given: Branch, above: ReadonlySet<string>): Set<string> {
  const known = new Set([...above, ...given.names]);
  const branches = given.inner.map((inner) => byCopies(inner, known));
  for (const name of branches[0] ?? []) if (branches.every((other) => other.has(name))) known.add(name);
  return known;
}
function byLayers(given: Branch, above?: Layers<true>): Layers<true> {
  const known = new Layers<true>(above);
  for (const name of given.names) known.set(name, true);
  known.join(given.inner.map((inner) => byLayers(inner, known)));
  return known;
}

test('layers know what copies would know', () => {
  fc.assert(
    fc.property(branch, (given) => {
      const [layers, copies] = [byLayers(given), byCopies(given, new Set())];
      expect([...layers.keys()].sort()).toEqual([...copies].sort());
      for (const name of ['a', 'b', 'c', 'd', 'e', 'f']) expect([name, layers.has(name)]).toEqual([name, copies.has(name)]);
    }),
  );
});

test('the nearest layer answers, and what a branch sets stays in it', () => {
  const above = new Layers<number>();
  above.set('a', 1);
  const branch = new Layers(above);
  branch.set('a', 2);
  branch.set('b', 3);
  expect([above.get('a'), branch.get('a'), above.get('b'), branch.get('b')]).toEqual([1, 2, undefined, 3]);
});
