import { spawn, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';

/** A real server from Debian's packages, run in the foreground as a child in a folder of its own. It ends with its parent. */
export interface Daemon {
  readonly folder: string;
  close(): Promise<void>;
}

const NOBODY = { uid: 65_534, gid: 65_534 } as const;
const READY_MS = 15_000;

export const isRoot = (): boolean => process.getuid?.() === 0;
/** Who the servers run as: never root. */
export const daemonUser = (): { readonly user: string; readonly group: string } =>
  isRoot() ? { user: 'nobody', group: 'nogroup' } : { user: os.userInfo().username, group: String(process.getgid?.() ?? '') };

/** Whether a program is there; where it is not, its stand-in stays away and says so. */
export const isInstalled = (program: string): boolean =>
  ['/usr/sbin', '/usr/bin'].some((folder) => fs.existsSync(path.join(folder, program)));

/** A fresh folder that the server may write in; short, since it holds sockets. */
export function daemonFolder(name: string): string {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), `millrace-${name}-`));
  if (isRoot()) fs.chownSync(folder, NOBODY.uid, NOBODY.gid);
  return folder;
}

export function giveAway(file: string): void {
  if (isRoot()) fs.chownSync(file, NOBODY.uid, NOBODY.gid);
}

/** Starts the program and waits until its port answers, with `greeting` when it has one. */
export async function startDaemon(ask: {
  readonly folder: string;
  readonly command: readonly string[];
  readonly port: number;
  readonly greeting?: string;
}): Promise<Daemon> {
  const drop = isRoot() ? ['--reuid=nobody', '--regid=nogroup', '--clear-groups'] : [];
  const child = spawn('setpriv', ['--pdeathsig', 'TERM', ...drop, ...ask.command], { stdio: ['ignore', 'ignore', 'pipe'], cwd: '/' });
  let said = '';
  child.stderr.on('data', (chunk: Buffer) => {
    said = `${said}${chunk.toString()}`.slice(-2_000);
  });
  const close = async (): Promise<void> => {
    await ended(child);
    fs.rmSync(ask.folder, { recursive: true, force: true });
  };
  const until = Date.now() + READY_MS;
  while (!(await answers(ask.port, ask.greeting))) {
    if (child.exitCode !== null || Date.now() > until) {
      await close();
      throw new Error(`${ask.command[0] ?? ''} did not start: ${said}`);
    }
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  return { folder: ask.folder, close };
}

function ended(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    const timer = setTimeout(() => child.kill('SIGKILL'), 8_000);
    child.once('exit', () => {
      clearTimeout(timer);
      resolve();
    });
    child.kill('SIGTERM');
  });
}

function answers(port: number, greeting: string | undefined): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = net.connect({ host: '127.0.0.1', port });
    const end = (ok: boolean): void => {
      socket.destroy();
      resolve(ok);
    };
    socket.setTimeout(1_000, () => {
      end(false);
    });
    socket.once('error', () => {
      end(false);
    });
    if (greeting === undefined)
      socket.once('connect', () => {
        end(true);
      });
    socket.once('data', (chunk: Buffer) => {
      end(chunk.toString().startsWith(greeting ?? ''));
    });
  });
}
