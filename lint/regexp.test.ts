/** The rules for regular expressions are seen to fail: an expression that looks at a stretch of text again and again is refused. */
import { spawnSync } from 'node:child_process';

const PROGRAM = `
import { Linter } from 'eslint';
import config from './eslint.config.mjs';
const { plugins, rules } = config.find((entry) => entry.plugins?.regexp && entry.rules?.['regexp/no-super-linear-move']);
const own = Object.fromEntries(Object.entries(rules).filter(([name]) => name.startsWith('regexp/')));
const told = (code) => new Linter().verify(code, [{ plugins, rules: own }]).map((message) => message.ruleId);
process.stdout.write(JSON.stringify(process.argv.slice(1).map(told)));
`;

test('expressions that cost more than their length are refused, others are not', () => {
  const codes = [
    'export const end = /\\s+$/;',
    'export const twice = /^(?:\\w+\\s?)*$/;',
    'export const parts = text.split(/\\s+at\\s+/);',
    'export const bounded = /\\s{1,20}$/;',
    'export const fixed = /^[a-z]+$/;',
  ];
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', PROGRAM, ...codes], { encoding: 'utf8' });
  expect(stderr).not.toMatch(/Error/);
  const [end, twice, parts, bounded, fixed] = JSON.parse(stdout) as string[][];
  expect(end).toContain('regexp/no-super-linear-move');
  expect(twice).toContain('regexp/no-super-linear-backtracking');
  expect(parts).toContain('regexp/no-super-linear-move');
  expect([bounded, fixed]).toEqual([[], []]);
});
