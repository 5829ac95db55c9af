import { spawnSync } from 'node:child_process';
import path from 'node:path';

interface Cruise {
  readonly summary: {
    readonly violations: readonly { readonly from: string; readonly rule: { readonly name: string } }[];
    readonly ruleSetUsed: { readonly forbidden: readonly { readonly name: string }[] };
  };
}

/** Runs the linter over the tiny files that each break one rule. A guard nobody has seen fail is not yet a guard. */
function cruiseBroken(): Cruise {
  const cli = path.resolve('node_modules/dependency-cruiser/bin/dependency-cruise.mjs');
  const run = spawnSync(
    process.execPath,
    [cli, '--config', path.resolve('lint/layers.cjs'), '--ts-config', path.resolve('tsconfig.json'), '--output-type', 'json', 'src', 'e2e'],
    { cwd: path.resolve('lint/broken'), encoding: 'utf8', maxBuffer: 32 * 1024 * 1024 },
  );
  return JSON.parse(run.stdout) as Cruise;
}

const cruise = cruiseBroken();

describe('layer rules', () => {
  test.each(cruise.summary.ruleSetUsed.forbidden.map((rule) => rule.name))('%s fails for the file that breaks it', (name) => {
    const hit = cruise.summary.violations.filter((violation) => violation.rule.name === name);
    expect(hit.map((violation) => path.basename(violation.from))).toContain(`${name}.ts`);
  });
});
