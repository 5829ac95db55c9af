/** `sessions.ts EMAIL|all`: ends the sessions of one person, or everybody's. */
import { readConfig } from '../config';
import { endSessionsOf } from '../access/access';
import { makeWorld } from './world';

const world = makeWorld(readConfig(), 'millrace-sessions');
const [whose] = process.argv.slice(2);
if (whose === undefined) throw new Error('say whose: an e-mail, or all');
try {
  process.stdout.write(`${await endSessionsOf(world, whose === 'all' ? null : whose)}\n`);
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 1;
}
await world.db.end();
await world.box.close();
