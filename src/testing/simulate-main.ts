/** `simulate-main.ts [SEED] | [FROM TO]`: see scripts/simulate.mjs. */
import { simulate } from './simulate';

const [first = 1, second] = process.argv.slice(2).map(Number);
const last = second ?? (process.argv.length > 2 ? first : 10_000);
let broken = 0;
const totals = { steps: 0, crashes: 0, delivered: 0, inDoubt: 0 };
for (let seed = first; seed <= last; seed++) {
  const result = simulate(seed);
  for (const key of ['steps', 'crashes', 'delivered', 'inDoubt'] as const) totals[key] += result[key];
  if (!result.broken) continue;
  broken += 1;
  process.stdout.write(`seed ${seed}: ${result.broken}\n`);
}
process.stdout.write(
  `${last - first + 1} seeds, ${totals.steps} steps, ${totals.crashes} crashes, ${totals.delivered} mails arrived once, ${totals.inDoubt} in doubt, ${broken} broken\n`,
);
process.exit(broken === 0 ? 0 : 1);
