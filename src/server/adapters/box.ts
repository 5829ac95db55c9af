/**
 * A pool of reading processes. Each does one job at a time; one that goes over the limits of its job is ended by its process
 * id, its job fails in words, and a fresh one takes its place. They know nothing of ours: no environment, no database, no key.
 */
import { fork, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import v8 from 'node:v8';
import { BOX_LIMITS, jobFailure, POOL, type BoxAnswer, type BoxJob } from '../box';
import { WorldFailure, type Box, type BoxKind, type Log } from '../ports';

interface Waiting {
  readonly kind: BoxKind;
  readonly input: unknown;
  readonly done: (out: unknown) => void;
  readonly failed: (error: WorldFailure) => void;
}
interface Reader {
  readonly child: ChildProcess;
  readings: number;
  ready: boolean;
  job: (Waiting & { readonly id: number }) | undefined;
  /** why we ended it; undefined when it ended by itself */
  ended: 'memory' | 'time' | undefined;
  timers: NodeJS.Timeout[];
}

/** Resident memory of a process in MB, as Linux tells it; 0 when it is gone. */
function residentMb(pid: number | undefined): number {
  try {
    const pages = Number(fs.readFileSync(`/proc/${pid ?? 0}/statm`, 'utf8').split(' ')[1]);
    return (pages * 4096) / 1024 / 1024;
  } catch {
    return 0;
  }
}

interface Program {
  readonly file: string;
  readonly options?: readonly string[];
}

/** `program`: what Node runs to read, with its options before it. */
export const boxPool = (program: Program, log: Log, size: number = POOL.size): Box => new BoxPool(program, log, size);

class BoxPool implements Box {
  private readonly readers = new Set<Reader>();
  private readonly queue: Waiting[] = [];
  private nextId = 1;
  private closed = false;

  constructor(
    private readonly program: Program,
    private readonly log: Log,
    private readonly size: number,
  ) {}

  readonly run: Box['run'] = (kind, input) =>
    new Promise((done, failed) => {
      if (this.closed || this.queue.length >= POOL.waiting) {
        failed(new WorldFailure('busy', 'too much is being read at the moment', true));
        return;
      }
      this.queue.push({ kind, input, done: done as (out: unknown) => void, failed });
      this.next();
    });

  async close(): Promise<void> {
    this.closed = true;
    for (const waiting of this.queue.splice(0)) waiting.failed(new WorldFailure('busy', 'Millrace is being stopped', true));
    const ended = [...this.readers].map(
      ({ child }) =>
        new Promise<void>((resolve) => {
          child.once('exit', () => {
            resolve();
          });
          child.kill('SIGKILL');
        }),
    );
    await Promise.all(ended);
  }

  private begin(): void {
    const child = fork(this.program.file, {
      execArgv: ['--max-old-space-size=400', ...(this.program.options ?? [])],
      env: { NODE_ENV: 'production', TZ: 'UTC' },
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    const reader: Reader = { child, readings: 0, ready: false, job: undefined, ended: undefined, timers: [] };
    this.readers.add(reader);
    // A resting reader keeps nobody from ending; one that starts or reads does.
    child.unref();
    child.on('message', (message: 'ready' | BoxAnswer) => {
      if (message === 'ready') {
        reader.ready = true;
        child.channel?.unref();
      } else this.answered(reader, message);
      this.next();
    });
    child.on('error', () => {
      // One that never began has no end to wait for.
      if (child.pid === undefined) this.gone(reader);
      else end(reader, undefined);
    });
    child.on('exit', () => {
      this.gone(reader);
    });
  }

  private gone(reader: Reader): void {
    this.readers.delete(reader);
    const job = settle(reader);
    if (job) {
      this.log.warn('a reading process was ended', { kind: job.kind, why: reader.ended ?? 'it ended by itself' });
      job.failed(jobFailure(job.kind, reader.ended ?? 'memory'));
    } else if (!reader.ready && !this.closed) {
      const first = this.queue.shift();
      first?.failed(new WorldFailure('broken', 'nothing can be read here at the moment: the reading process does not start', true));
    }
    this.next();
  }

  private answered(reader: Reader, answer: BoxAnswer): void {
    if (reader.job?.id !== answer.id) return;
    const job = settle(reader);
    if ('out' in answer) job?.done(v8.deserialize(Buffer.from(answer.out)));
    else job?.failed(new WorldFailure(answer.code, answer.message, false));
    reader.readings += 1;
    if (reader.readings >= POOL.readings || residentMb(reader.child.pid) > POOL.restingMb) {
      this.readers.delete(reader);
      reader.child.disconnect();
    }
  }

  private give(reader: Reader, waiting: Waiting): void {
    const limit = BOX_LIMITS[waiting.kind];
    const id = this.nextId++;
    reader.job = { ...waiting, id };
    reader.child.channel?.ref();
    reader.timers.push(
      setTimeout(() => {
        end(reader, 'time');
      }, limit.ms),
      setInterval(() => {
        if (residentMb(reader.child.pid) > limit.memoryMb) end(reader, 'memory');
      }, POOL.watchMs),
    );
    reader.child.send({ id, kind: waiting.kind, input: waiting.input } satisfies BoxJob, (error) => {
      if (error) end(reader, undefined);
    });
  }

  /** The first that may be begun: one scan at a time, so that a pile of them keeps no mail and no form waiting. */
  private take(): Waiting | undefined {
    const isScanning = [...this.readers].some((reader) => reader.job?.kind === 'scan');
    const at = this.queue.findIndex((waiting) => waiting.kind !== 'scan' || !isScanning);
    return at < 0 ? undefined : this.queue.splice(at, 1)[0];
  }

  private next(): void {
    if (this.closed) return;
    for (const reader of this.readers) {
      if (!reader.ready || reader.job !== undefined || !reader.child.connected) continue;
      const waiting = this.take();
      if (!waiting) return;
      this.give(reader, waiting);
    }
    const starting = [...this.readers].filter((reader) => !reader.ready).length;
    if (this.queue.length > starting && this.readers.size < this.size) this.begin();
  }
}

/** Takes its job from a reader, which rests from then on. */
function settle(reader: Reader): Waiting | undefined {
  const { job } = reader;
  reader.job = undefined;
  reader.child.channel?.unref();
  for (const timer of reader.timers) clearTimeout(timer);
  reader.timers = [];
  return job;
}

function end(reader: Reader, why: Reader['ended']): void {
  reader.ended ??= why;
  reader.child.kill('SIGKILL');
}
