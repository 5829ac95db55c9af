import { spawnSync } from 'node:child_process';

const run = (folder: string) => spawnSync(process.execPath, ['lint/trade-words.mjs', folder], { encoding: 'utf8' });

test('a file that speaks of a trade is refused, with the word, where it comes from, and its place', () => {
  const { status, stdout } = run('lint/broken/trade');
  expect(status).toBe(1);
  expect(stdout).toContain('lint/broken/trade/wording.ts:2: “heated area” is a word of a trade (field company.heated_area of demo)');
  expect(stdout).toContain('wording.ts:3: “main crop”');
  expect(stdout).toContain('wording.ts:4: “washing lines”');
});

test('nothing in src speaks of one', () => {
  expect(run('src')).toMatchObject({ status: 0, stdout: '' });
});
