#!/usr/bin/env node
// `npm run kill-test [SENDS] [BLOWS]`: real workers, a real database, a real relay, and blows at random moments while mail
// goes out: workers killed with -9, a worker stopped past its lease, the database crashed and started again, the relay
// dropping lines after DATA (the mail taken, or forgotten). Every mail must arrive once. Prints its counts; exits non-zero
// when a mail was lost or doubled.
import fs from 'node:fs';
import path from 'node:path';
import pLimit from 'p-limit';
import { freshWorld, ROOT, say, sleep, startDatabase, stopDatabase } from './lib.mjs';

const [SENDS, BLOWS] = [Number(process.argv[2] ?? 500), Number(process.argv[3] ?? 20)];
const SEED = 20261124;
const LEASE_MS = 3000;
const HOME = path.join(ROOT, '.local/kill');
const FLOW = `flow "Kill test"
about person

take in from hand
keep when email != null
write email "Plain" as m
ask "north" to approve m
send m
`;

/** Mulberry32: the moments of the kills can be had again. */
function random(seed) {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A workspace without limits that would take days: the pace is not what is tested here. */
function seed() {
  const workspace = JSON.parse(fs.readFileSync(path.join(ROOT, 'demo/workspace.json'), 'utf8'));
  workspace.mailboxes[0].dailyLimit = 100_000;
  workspace.mailboxes[0].personGapDays = 0;
  workspace.library.push({
    kind: 'template',
    name: 'Plain',
    body: { name: 'Plain', subject: 'Hello', body: 'Hello {first_name or "there"},\n\na plain mail.' },
  });
  fs.writeFileSync(path.join(HOME, 'flow.race'), FLOW);
  workspace.flows = [path.join(HOME, 'flow.race')];
  delete workspace.crm;
  fs.writeFileSync(path.join(HOME, 'workspace.json'), JSON.stringify(workspace));
  return path.join(HOME, 'workspace.json');
}

// Thousands are approved by one caller: how often somebody may ask is not what is tested here either.
const world = await freshWorld(HOME, {
  seed,
  workers: 2,
  env: { MILLRACE_LEASE_MS: String(LEASE_MS), MILLRACE_LOG: 'error', MILLRACE_PACE: '1000' },
});
const { api } = world;
let failed = true;
try {
  const until = async (what, test, seconds = 300) => {
    for (const end = Date.now() + seconds * 1000; Date.now() < end; await sleep(300)) if (await test()) return;
    throw new Error(`${what} did not happen within ${seconds} s`);
  };
  /** Asked again when the line was closed between two questions: the stand-in keeps none open for long. */
  const counts = async (again = 3) => {
    try {
      return await (await fetch(`http://127.0.0.1:${world.ports.mail}/counts`)).json();
    } catch (error) {
      if (again === 0) throw error;
      await sleep(200);
      return counts(again - 1);
    }
  };

  // What comes back stops a mailbox sooner or later, as it should: here nobody's address is wrong and nobody complains.
  await fetch(`http://127.0.0.1:${world.ports.mail}/never`, { method: 'POST', body: JSON.stringify({ kinds: ['bounce', 'complains'] }) });
  const [flow] = (await api('GET', '/flows')).items;
  const list = ['Name,Mail', ...Array.from({ length: SENDS }, (_, i) => `Reader Number${i},reader${i}@silent${i}.example`)].join('\n');
  const { import: uploaded } = await api('POST', `/imports?name=kill.csv&flow=${flow.id}`, Buffer.from(list));
  await api('POST', `/imports/${uploaded.id}/start`, {});
  let approved = 0;
  await until(
    'approving',
    async () => {
      const { items } = await api('GET', '/reviews');
      const limit = pLimit(8);
      await Promise.all(items.map((review) => limit(() => api('POST', `/reviews/${review.id}/decision`, { does: 'approve' }))));
      approved += items.length;
      return approved >= SENDS;
    },
    1200,
  );
  say(`${approved} messages approved; ${BLOWS} blows on ${world.crew.length} workers, database and relay (seed ${SEED})`);
  // Two minutes apart, inside office hours: many days, and more for those whose worker died and who take their turn again.
  // The clock walks from send to send while workers die.
  await api('POST', '/clock', { byMs: 60 * 86_400_000 });

  const chance = random(SEED);
  const fault = (mode, share = 1) =>
    fetch(`http://127.0.0.1:${world.ports.mail}/fault`, { method: 'POST', body: JSON.stringify({ mode, share }) });
  const anyWorker = () => world.crew[Math.floor(chance() * world.crew.length)];
  /** What can happen, how often in a hundred, and how it is done. */
  const HAZARDS = [
    [
      'worker killed',
      56,
      async () => {
        const victim = anyWorker();
        victim.stopping = true;
        // One that ended by itself, when its database did, is started like one that was killed.
        victim.process.kill('SIGKILL');
        await sleep(100);
        victim.stopping = false;
        victim.isReady = false;
        await victim.start();
      },
    ],
    [
      'worker stopped past its lease',
      10,
      async () => {
        const { process: stopped } = anyWorker();
        stopped.kill('SIGSTOP');
        await sleep(LEASE_MS + 1000);
        stopped.kill('SIGCONT');
      },
    ],
    [
      'database crashed',
      14,
      async () => {
        stopDatabase(HOME, 'crash');
        await sleep(chance() * 500);
        startDatabase(HOME);
      },
    ],
    [
      'relay dropping lines, mail taken',
      10,
      async () => {
        await fault('drop after data', 0.5);
        await sleep(2000);
        await fault('none');
      },
    ],
    [
      'relay dropping lines, mail forgotten',
      10,
      async () => {
        await fault('drop and forget', 0.5);
        await sleep(2000);
        await fault('none');
      },
    ],
  ];
  const happened = {};
  for (let blow = 1; blow <= BLOWS; blow++) {
    // Spread over the whole sending, each at a random moment.
    await until('sending', async () => (await counts()).taken >= (SENDS * (blow - 1)) / BLOWS, 600);
    await sleep(chance() * 700);
    let lot = chance() * 100;
    const [name, , strike] = HAZARDS.find(([, share]) => (lot -= share) < 0) ?? HAZARDS[0];
    await strike();
    happened[name] = (happened[name] ?? 0) + 1;
    if (blow % 5 === 0) say(`${blow} blows, ${(await counts()).taken} mails arrived`);
  }
  await until(
    'sending',
    async () => (await counts()).different >= SENDS && (await api('GET', '/messages?state=planned&limit=1')).items.length === 0,
    900,
  );
  await sleep(LEASE_MS + 2000);
  const end = await counts();
  const doubts = (await api('GET', '/messages?state=in%20doubt&limit=200')).items.length;
  const lost = SENDS - end.different;
  say(`sent ${SENDS}: arrived ${end.different}, lost ${lost}, twice ${end.twice}, still in doubt ${doubts}`);
  say(
    `after ${Object.entries(happened)
      .map(([name, times]) => `${times} × ${name}`)
      .join(', ')}`,
  );
  failed = lost !== 0 || end.twice !== 0;
} finally {
  await world.stop();
}
process.exit(failed ? 1 : 0);
