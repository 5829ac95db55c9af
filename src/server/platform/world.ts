import { z } from 'zod';
import type { Instant } from '../../core/base';
import type { Db, Tx } from '../db';
import type {
  Box,
  Calendars,
  Clock,
  DemoWorld,
  Dictionary,
  Log,
  Mail,
  Mailboxes,
  Papers,
  Examples,
  Passwords,
  Providers,
  SignIns,
  Sources,
  Web,
  Webhooks,
} from '../ports';
import { getSetting } from './store/settings';

/** Everything a use case may reach, handed in. */
export interface World {
  readonly db: Db;
  readonly clock: Clock;
  readonly mail: Mail;
  readonly web: Web;
  readonly providers: Providers;
  readonly sources: Sources;
  readonly mailboxes: Mailboxes;
  readonly calendars: Calendars;
  readonly webhooks: Webhooks;
  readonly demo: DemoWorld;
  readonly box: Box;
  readonly papers: Papers;
  readonly dictionary: Dictionary;
  readonly examples: Examples;
  readonly passwords: Passwords;
  readonly signIns: SignIns;
  readonly log: Log;
  readonly newId: () => string;
  readonly publicUrl: string;
  readonly secret: string;
  /** how much more often than usual callers may call; for figures and runs that hurry */
  readonly paceFactor: number;
  /** whether the demo's doors are open: people shown at sign-in, a clock that can be moved */
  readonly isDemo: boolean;
}

/** Who asks. */
export interface Actor {
  readonly userId: string | null;
  readonly name: string;
}

/** An expected refusal, told to the person who asked. */
export class Refusal extends Error {
  constructor(
    readonly kind: 'not found' | 'not allowed' | 'not valid' | 'conflict' | 'too often',
    message: string,
    readonly detail: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
    this.name = 'Refusal';
  }
}

export function found<T>(value: T | undefined, what: string): T {
  if (value === undefined) throw new Refusal('not found', `${what} does not exist`);
  return value;
}

const workspaceSchema = z.object({ name: z.string(), zone: z.string(), daysOff: z.array(z.string()), defaultCountry: z.string() });
export type Workspace = z.infer<typeof workspaceSchema>;

export async function workspace(tx: Tx): Promise<Workspace> {
  const read = workspaceSchema.safeParse(await getSetting(tx, 'workspace'));
  return read.success ? read.data : { name: 'My workspace', zone: 'Europe/Amsterdam', daysOff: [], defaultCountry: 'GB' };
}

/** A page's cursor: the last row's time and id, opaque to callers. */
export function readCursor(raw: string | undefined): { readonly at: Instant; readonly id: string } | null {
  if (raw === undefined || raw === '') return null;
  const [at, id] = Buffer.from(raw, 'base64url').toString('utf8').split('|');
  if (id === undefined || !Number.isFinite(Number(at)) || !/^[0-9a-f-]{36}$/.test(id))
    throw new Refusal('not valid', 'the cursor is not one that Millrace gave out');
  return { at: Number(at), id };
}
export const writeCursor = (row: { readonly id: string; readonly at: Instant }): string =>
  Buffer.from(`${row.at}|${row.id}`).toString('base64url');
