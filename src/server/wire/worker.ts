import os from 'node:os';
import { listenForMail } from '../adapters/inbound';
import { readConfig } from '../config';
import { receiveRaw } from '../intake/set-aside';
import { Worker, WORKER_DEFAULTS } from '../worker';
import { makeWorld } from './world';

const config = readConfig();
const world = makeWorld(config, 'millrace-worker');
const worker = new Worker(world, { ...WORKER_DEFAULTS, leaseMs: config.leaseMs, holder: `${os.hostname()} ${process.pid}` });
const inbound =
  config.inboundPort > 0
    ? await listenForMail({ port: config.inboundPort, take: (raw) => receiveRaw(world, raw), log: world.log })
    : undefined;
worker.start();
process.stdout.write(`worker ready ${process.pid}\n`);

let stopping = false;
const stop = async (): Promise<void> => {
  if (stopping) return;
  stopping = true;
  await inbound?.close();
  await worker.stop();
  await world.box.close();
  await world.db.end({ timeout: 5 });
  process.exit(0);
};
process.on('SIGTERM', () => {
  void stop();
});
process.on('SIGINT', () => {
  void stop();
});
