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

/** `program`: what Node runs to read, with its options before it. */
export function boxPool(program: { readonly file: string; readonly options?: readonly string[] }, log: Log, size: number = POOL.size): Box {
  const readers = new Set<Reader>();
  const queue: Waiting[] = [];
  let nextId = 1;
  let closed = false;

  const settle = (reader: Reader): Waiting | undefined => {
    const { job } = reader;
    reader.job = undefined;
    reader.child.channel?.unref();
    for (const timer of reader.timers) clearTimeout(timer);
    reader.timers = [];
    return job;
  };
  const end = (reader: Reader, why: Reader['ended']): void => {
    reader.ended ??= why;
    reader.child.kill('SIGKILL');
  };

  const begin = (): void => {
    const child = fork(program.file, {
      execArgv: ['--max-old-space-size=400', ...(program.options ?? [])],
      env: { NODE_ENV: 'production', TZ: 'UTC' },
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    const reader: Reader = { child, readings: 0, ready: false, job: undefined, ended: undefined, timers: [] };
    readers.add(reader);
    // A resting reader keeps nobody from ending; one that starts or reads does.
    child.unref();
    child.on('message', (message: 'ready' | BoxAnswer) => {
      if (message === 'ready') {
        reader.ready = true;
        child.channel?.unref();
      } else answered(reader, message);
      next();
    });
    child.on('error', () => {
      // One that never began has no end to wait for.
      if (child.pid === undefined) gone(reader);
      else end(reader, undefined);
    });
    child.on('exit', () => {
      gone(reader);
    });
  };

  const gone = (reader: Reader): void => {
    readers.delete(reader);
    const job = settle(reader);
    if (job) {
      log.warn('a reading process was ended', { kind: job.kind, why: reader.ended ?? 'it ended by itself' });
      job.failed(jobFailure(job.kind, reader.ended ?? 'memory'));
    } else if (!reader.ready && !closed) {
      const first = queue.shift();
      first?.failed(new WorldFailure('broken', 'nothing can be read here at the moment: the reading process does not start', true));
    }
    next();
  };

  const answered = (reader: Reader, answer: BoxAnswer): void => {
    if (reader.job?.id !== answer.id) return;
    const job = settle(reader);
    if ('out' in answer) job?.done(v8.deserialize(Buffer.from(answer.out)));
    else job?.failed(new WorldFailure(answer.code, answer.message, false));
    reader.readings += 1;
    if (reader.readings >= POOL.readings || residentMb(reader.child.pid) > POOL.restingMb) {
      readers.delete(reader);
      reader.child.disconnect();
    }
  };

  const give = (reader: Reader, waiting: Waiting): void => {
    const limit = BOX_LIMITS[waiting.kind];
    const id = nextId++;
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
  };

  const next = (): void => {
    if (closed) return;
    for (const reader of readers) {
      if (!reader.ready || reader.job !== undefined || !reader.child.connected) continue;
      const waiting = queue.shift();
      if (!waiting) return;
      give(reader, waiting);
    }
    const starting = [...readers].filter((reader) => !reader.ready).length;
    if (queue.length > starting && readers.size < size) begin();
  };

  return {
    run: <K extends BoxKind>(kind: K, input: unknown) =>
      new Promise((done, failed) => {
        if (closed || queue.length >= POOL.waiting) {
          failed(new WorldFailure('busy', 'too much is being read at the moment', true));
          return;
        }
        queue.push({ kind, input, done: done as (out: unknown) => void, failed });
        next();
      }),
    close: async () => {
      closed = true;
      for (const waiting of queue.splice(0)) waiting.failed(new WorldFailure('busy', 'Millrace is being stopped', true));
      await Promise.all(
        [...readers].map(
          (reader) =>
            new Promise<void>((resolve) => {
              reader.child.once('exit', () => {
                resolve();
              });
              reader.child.kill('SIGKILL');
            }),
        ),
      );
    },
  };
}
