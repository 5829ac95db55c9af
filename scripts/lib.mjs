// What the scripts share: set-up of packages, the build, the database, and the processes that make a running Millrace.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort } from './ports.mjs';

export const ROOT = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const LOCAL = path.join(ROOT, '.local');
const NEXT = path.join(ROOT, 'node_modules/next/dist/bin/next');
/** Bundled for Node by esbuild: the programs beside the web application. */
const PROGRAMS = [
  'src/server/wire/worker.ts',
  'src/server/wire/box.ts',
  'src/server/wire/http.ts',
  'src/server/wire/keys.ts',
  'src/server/wire/sessions.ts',
  'src/server/wire/migrate.ts',
  'src/server/wire/demo.ts',
  'src/server/wire/first.ts',
  'src/standins/main.ts',
];

export const say = (text) => process.stdout.write(`${text}\n`);
export function fail(text) {
  process.stderr.write(`${text}\n`);
  process.exit(1);
}

/** Runs a command to its end; its output is shown only when it fails, unless `show` is set. */
export function run(command, args, { show = false, env = {}, allowFailure = false } = {}) {
  const result = spawnSync(command, args, {
    cwd: ROOT,
    env: { ...process.env, ...env },
    encoding: 'utf8',
    stdio: show ? 'inherit' : ['ignore', 'pipe', 'pipe'],
    maxBuffer: 64 * 1024 * 1024,
  });
  if (result.status !== 0 && !allowFailure)
    fail(`${command} ${args.join(' ')} failed\n${result.stdout ?? ''}${result.stderr ?? ''}${result.error?.message ?? ''}`);
  return result;
}

const digest = (text) => createHash('sha1').update(text).digest('hex');
function stamp(name, value) {
  fs.mkdirSync(LOCAL, { recursive: true });
  fs.writeFileSync(path.join(LOCAL, name), value);
}
function stamped(name) {
  try {
    return fs.readFileSync(path.join(LOCAL, name), 'utf8');
  } catch {
    return '';
  }
}

/** npm packages as the lock file says; nothing to do when they are there already. */
export function ensurePackages() {
  const want = digest(fs.readFileSync(path.join(ROOT, 'package-lock.json')));
  if (fs.existsSync(NEXT) && (stamped('packages') === want || lockMatches())) return stamp('packages', want);
  say('installing npm packages …');
  run('npm', ['ci', '--no-audit', '--no-fund']);
  stamp('packages', want);
}

/** npm's own record of what it installed is no older than the lock: somebody ran `npm ci` by hand. */
function lockMatches() {
  const own = path.join(ROOT, 'node_modules/.package-lock.json');
  return fs.existsSync(own) && fs.statSync(own).mtimeMs >= fs.statSync(path.join(ROOT, 'package-lock.json')).mtimeMs;
}

/** Dictionaries by which a question in one language finds a page in another. */
export const DICTIONARIES = ['deu', 'nld', 'fra', 'spa'].flatMap((code) => [`dict-freedict-eng-${code}`, `dict-freedict-${code}-eng`]);

const DEBIAN = {
  postgresql: () =>
    fs.existsSync('/usr/lib/postgresql') &&
    fs.readdirSync('/usr/lib/postgresql').some((v) => fs.existsSync(`/usr/lib/postgresql/${v}/bin/initdb`)),
  'dovecot-imapd': () => fs.existsSync('/usr/sbin/dovecot'),
  'dovecot-lmtpd': () => fs.existsSync('/usr/lib/dovecot/lmtp'),
  'exim4-daemon-light': () => fs.existsSync('/usr/sbin/exim4'),
  radicale: () => fs.existsSync('/usr/bin/radicale'),
  ...Object.fromEntries(DICTIONARIES.map((name) => [name, () => fs.existsSync(`/usr/share/dictd/${name.replace('dict-', '')}.index`)])),
  chromium: () => fs.existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium'),
};

/** The mail server that tests write by; the demo writes by a stand-in whose readers answer. */
export const RELAY = 'exim4-daemon-light';
/** Real servers that the demo's mailboxes and calendars are kept in. */
export const DEMO_SERVERS = ['dovecot-imapd', 'dovecot-lmtpd', 'radicale'];

/** Debian packages that are missing are installed where that is permitted, else the one command to type is said. */
export function ensureDebian(names) {
  const missing = names.filter((name) => !DEBIAN[name]());
  if (missing.length === 0) return;
  const packages = [...missing, ...(missing.includes('chromium') ? ['fonts-dejavu-core'] : [])];
  const command = `apt-get update && apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  if (process.getuid?.() !== 0 || !fs.existsSync('/usr/bin/apt-get'))
    fail(`Millrace needs ${missing.join(' and ')}. Install it once with:\n  sudo sh -c '${command}'`);
  say(`installing ${packages.join(', ')} …`);
  run('sh', ['-c', command], { env: { DEBIAN_FRONTEND: 'noninteractive' } });
}

function sourceFiles(folder) {
  return fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const file = path.join(folder, entry.name);
    return entry.isDirectory() ? sourceFiles(file) : /\.test\.tsx?$/.test(entry.name) ? [] : [file];
  });
}

/** Builds web application and programs when a source file has changed since the last build. */
export async function ensureBuilt() {
  const files = [
    ...sourceFiles(path.join(ROOT, 'src')),
    ...['package-lock.json', 'next.config.ts', 'tsconfig.json'].map((name) => path.join(ROOT, name)),
  ].sort();
  const want = digest(files.map((file) => `${file} ${digest(fs.readFileSync(file))}`).join('\n'));
  if (
    stamped('built') === want &&
    fs.existsSync(path.join(ROOT, '.next/BUILD_ID')) &&
    fs.existsSync(path.join(ROOT, 'dist/server/wire/worker.mjs'))
  )
    return;
  say('building …');
  run(process.execPath, [NEXT, 'build'], { env: { NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' } });
  await buildPrograms();
  stamp('built', want);
}

export async function buildPrograms() {
  const { build } = await import('esbuild');
  await build({
    entryPoints: PROGRAMS,
    outbase: 'src',
    outdir: 'dist',
    outExtension: { '.js': '.mjs' },
    absWorkingDir: ROOT,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    sourcemap: true,
  });
}

/** What a cluster need not do whose data nobody wants back: wait for the disk. */
const FORGETFUL = ['fsync=off', 'synchronous_commit=off', 'full_page_writes=off', 'max_wal_size=4GB'].map((option) => `-c ${option}`);

/** Starts the project's own PostgreSQL (its data under `home`) and returns its URL. `forgets`: its data is for one run of tests. */
export function startDatabase(home = ROOT, { forgets = false, ...options } = {}) {
  fs.mkdirSync(home, { recursive: true });
  const env = { PG_PROJECT_ROOT: home, ...(forgets && { PG_OPTS: FORGETFUL.join(' ') }) };
  return run(process.execPath, ['scripts/pg.mjs', 'start'], { env, ...options })
    .stdout.trim()
    .split('\n')
    .at(-1);
}
export function stopDatabase(home = ROOT, how = 'stop') {
  run(process.execPath, ['scripts/pg.mjs', how], { env: { PG_PROJECT_ROOT: home }, allowFailure: true });
}

export const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** A child process that says a word when it is ready, and is stopped by its process id. */
export class Child {
  constructor(name, args, env, { readyWord, restart = false }) {
    Object.assign(this, { name, args, env, readyWord, restart, stopping: false });
  }
  start() {
    const child = spawn(process.execPath, this.args, {
      cwd: ROOT,
      env: { ...process.env, ...this.env },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.process = child;
    child.on('exit', (code, signal) => {
      if (this.stopping || !this.restart) return;
      process.stderr.write(`${this.name} ended (${signal ?? code}): started again\n`);
      setTimeout(() => this.stopping || void this.start().catch(() => undefined), 1000);
    });
    return new Promise((resolve, reject) => {
      let seen = '';
      child.stdout.on('data', (chunk) => {
        if (this.isReady) return void process.stderr.write(chunk);
        seen += chunk;
        if (!seen.includes(this.readyWord)) return;
        this.isReady = true;
        resolve();
      });
      child.once('exit', () => reject(new Error(`${this.name} did not start: ${seen}`)));
    });
  }
  get pid() {
    return this.process?.pid;
  }
  /** Gently first; what has not ended after five seconds is ended. */
  async stop() {
    this.stopping = true;
    const child = this.process;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    const timer = setTimeout(() => child.kill('SIGKILL'), 5000);
    await ended;
    clearTimeout(timer);
  }
}

const STANDIN_PORTS = ['web', 'providers', 'smtp', 'mail', 'inbound', 'hooks', 'sources', 'imap', 'lmtp', 'calendar', 'signIn', 'names'];

/**
 * What a process holds of memory it no longer needs: on a large machine Node would let garbage lie up to gigabytes, and the
 * allocator keep a pool of freed pieces for every thread. Once every page was asked for, the web process keeps some 260 MB, most of
 * it the text of the pages' own programs: under less than half as much again one long look at sites ends it.
 */
const LEAN = ['--max-old-space-size=448', '--max-semi-space-size=8'];
/** A worker holds what its batches need, whatever that is; only the young garbage is cleared early. The bench runs with the same. */
export const WORKER = ['--max-semi-space-size=8'];
export const WORKER_ENV = { MALLOC_ARENA_MAX: '2' };

const program = (name) => ['--enable-source-maps', `dist/${name}.mjs`];

/**
 * Starts stand-ins (demo only), workers and web on free loopback ports. With `accounts`, addresses with passwords, mails leave by a
 * real mail server and lie in mailboxes of a real one. Returns addresses, the children, and `stop`.
 * `databaseUrl` must be migrated already.
 */
export async function startProcesses({
  databaseUrl,
  demo,
  port,
  workers = 1,
  web = true,
  journal,
  env: more = {},
  restart = false,
  accounts,
}) {
  const children = [];
  const ports = {};
  const standins = accounts ? [...STANDIN_PORTS, 'relay'] : STANDIN_PORTS;
  for (const name of standins) ports[name] = await freePort();
  const env = {
    DATABASE_URL: databaseUrl,
    PORT: String(port),
    MILLRACE_DEMO: demo ? '1' : '0',
    MILLRACE_INBOUND_PORT: String(ports.inbound),
    ...(demo && {
      MILLRACE_SMTP: `127.0.0.1:${ports.relay ?? ports.smtp}`,
      MILLRACE_STANDIN_WEB: `127.0.0.1:${ports.web}`,
      MILLRACE_STANDIN_MAIL: `http://127.0.0.1:${ports.mail}`,
      MILLRACE_STANDIN_HOOKS: `127.0.0.1:${ports.hooks}`,
      MILLRACE_STANDIN_IMAP: `127.0.0.1:${ports.imap}`,
      MILLRACE_STANDIN_CALENDAR: `127.0.0.1:${ports.calendar}`,
      MILLRACE_STANDIN_NAMES: `127.0.0.1:${ports.names}`,
      MILLRACE_STANDIN_SIGN_IN: `127.0.0.1:${ports.signIn}`,
      MILLRACE_PROVIDERS: `http://127.0.0.1:${ports.providers}`,
      MILLRACE_SOURCES: `http://127.0.0.1:${ports.sources}`,
    }),
    ...(accounts && { MILLRACE_ACCOUNTS: JSON.stringify(accounts) }),
    MILLRACE_LOG: process.env.MILLRACE_LOG ?? 'warn',
    ...WORKER_ENV,
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    ...more,
  };
  const add = async (child) => {
    children.push(child);
    await child.start();
    return child;
  };
  try {
    if (demo)
      await add(
        new Child(
          'stand-ins',
          [...program('standins/main'), ...standins.map((name) => `${name}=${ports[name]}`), ...(journal ? [`journal=${journal}`] : [])],
          env,
          { readyWord: 'ready', restart },
        ),
      );
    const crew = [];
    for (let i = 0; i < workers; i++)
      crew.push(
        await add(
          new Child(
            `worker ${i + 1}`,
            [...WORKER, ...program('server/wire/worker')],
            i === 0 ? env : { ...env, MILLRACE_INBOUND_PORT: '0' },
            {
              readyWord: 'worker ready',
              restart,
            },
          ),
        ),
      );
    if (web) await add(new Child('web', [...LEAN, ...program('server/wire/http')], env, { readyWord: 'Ready', restart }));
    return { url: `http://127.0.0.1:${port}`, ports, env, children, crew, stop: () => stopAll(children) };
  } catch (error) {
    await stopAll(children);
    throw error;
  }
}

async function stopAll(children) {
  await Promise.all([...children].reverse().map((child) => child.stop()));
}

/** Runs one of the bundled programs to its end. */
export function runProgram(name, env, args = [], options = {}) {
  return run(process.execPath, [...program(name), ...args], { env: { MILLRACE_LOG: 'warn', ...env }, ...options });
}

/**
 * A fresh demo world of its own under `home`: packages, build, database, seed, processes. Returns what `startProcesses`
 * does, with the demo's bearer token, `api` for calls, and a `stop` that stops the database too. `seed` gets the environment
 * and returns the workspace file.
 */
export async function freshWorld(
  home,
  { seed = () => 'demo/workspace.json', workers, forgets = false, isEmpty = false, accounts, env: more = {} } = {},
) {
  ensurePackages();
  ensureDebian(['postgresql', ...DEMO_SERVERS, ...(accounts ? [RELAY] : []), ...DICTIONARIES]);
  await ensureBuilt();
  stopDatabase(home, 'destroy');
  fs.rmSync(home, { recursive: true, force: true });
  const databaseUrl = startDatabase(home, { forgets });
  try {
    const port = await freePort();
    const env = {
      DATABASE_URL: databaseUrl,
      MILLRACE_DEMO: '1',
      MILLRACE_SECRET: 'a world for one run',
      MILLRACE_PUBLIC_URL: `http://127.0.0.1:${port}`,
    };
    const tokenFile = path.join(home, 'token');
    runProgram('server/wire/migrate', env);
    // Nobody works in an empty one yet: it says by which address the first comes in.
    const told = isEmpty ? runProgram('server/wire/first', env).stdout : '';
    if (!isEmpty) runProgram('server/wire/demo', env, [seed(), tokenFile]);
    const token = isEmpty ? '' : fs.readFileSync(tokenFile, 'utf8').trim();
    const world = await startProcesses({
      databaseUrl,
      demo: true,
      port,
      workers,
      accounts,
      env: { MILLRACE_SECRET: env.MILLRACE_SECRET, MILLRACE_PUBLIC_URL: env.MILLRACE_PUBLIC_URL, ...more },
    });
    return {
      ...world,
      token,
      firstAddress: /https?:\S+/.exec(told)?.[0] ?? '',
      api: (method, at, body) => callApi(world.url, token, method, at, body),
      stop: async () => {
        await world.stop();
        stopDatabase(home);
      },
    };
  } catch (error) {
    stopDatabase(home);
    throw error;
  }
}

/** Calls the REST API; a list goes as CSV bytes, anything else as JSON. */
async function callApi(url, token, method, at, body) {
  const file = body instanceof Buffer;
  const response = await fetch(`${url}/api/v1${at}`, {
    method,
    headers: { authorization: `Bearer ${token}`, 'content-type': file ? 'text/csv' : 'application/json' },
    ...(body === undefined ? {} : { body: file ? body : JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${method} ${at}: ${response.status} ${await response.text()}`);
  return response.json();
}

/** The folder of a demo world by its name; without one, the first. */
export function worldFolderOf(name) {
  if (name === undefined) return 'demo';
  const folder = path.join('demo', name);
  if (!/^[a-z]+$/.test(name) || !fs.existsSync(path.join(ROOT, folder, 'workspace.json'))) {
    const others = fs
      .readdirSync(path.join(ROOT, 'demo'))
      .filter((entry) => fs.existsSync(path.join(ROOT, 'demo', entry, 'workspace.json')));
    fail(`there is no world “${name}”: there is ${others.join(', ')}`);
  }
  return folder;
}
