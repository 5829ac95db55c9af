/** The lists kept beside: nobody is lost, nothing stands in a wrong field; what is not sure is asked. */
import { evaluateLists } from './lists';

test('no column is taken wrongly, no good row is lost, no unusable one is let in', () => {
  const said = evaluateLists('evaluation/lists', 'evaluation/lists/key.json', undefined);
  expect(said.filter((line) => /^(?:wrong|lost|let in|headings) /.test(line))).toEqual([]);
  expect(said).toContain('good rows lost                    0 of 16 rows');
  const right = Number(/ (\d+\.\d) %$/.exec(said.find((line) => line.startsWith('columns right')) ?? '')?.[1]);
  expect(right).toBeGreaterThanOrEqual(90);
});

test('what differs from the key is named with its list, row and field', () => {
  const said = evaluateLists('evaluation/lists', 'evaluation/lists/key.json', undefined).join('\n');
  expect(said).toMatch(/^(?:asked|value) +0\d_\w+\.\w+: (?:column \d+ \(\w+\)|row \d+ \w+: .* expected, .* given)$/m);
});
