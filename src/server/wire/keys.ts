/**
 * `keys.ts settle`: before anything else starts, says whether the key fits, and moves an older installation to it once.
 * `keys.ts move`: seals everything with the key in `MILLRACE_NEW_SECRET` instead.
 */
import { readConfig } from '../config';
import { moveKey, settleKey } from '../workspace/keys';
import { makeWorld } from './world';

const config = readConfig();
const world = makeWorld(config, 'millrace-keys');
const say = (text: string): void => {
  process.stdout.write(`${text}\n`);
};
if (process.argv[2] === 'move') {
  if (config.newSecret === null) throw new Error('MILLRACE_NEW_SECRET is not set');
  say(`sealed anew: ${await moveKey(world, world.secret, config.newSecret)}`);
} else {
  const state = await settleKey(world, config.oldSecret);
  say(state);
  if (state === 'wrong') process.exitCode = 3;
}
await world.db.end();
await world.box.close();
