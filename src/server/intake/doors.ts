import type { Instant } from '../../core/base';
import { watchedSchema } from '../../core/intake';
import { listIntakes, type IntakeRow } from './store/intakes';
import { listMailboxes } from '../messages/store/mailboxes';
import { flowsTaking } from './entries';
import type { World } from '../platform/world';

/** A door as the list of all doors shows it. */
export interface DoorLine {
  readonly id: string;
  readonly kind: IntakeRow['kind'];
  readonly name: string;
  /** where it stands: its own address, or whose mailbox or calendar it is */
  readonly address: string;
  readonly isOn: boolean;
  readonly lastAt: Instant | null;
  readonly taken: number;
  readonly refused: number;
  readonly problem: string | null;
  readonly flows: readonly string[];
}

/** Every door that records come in by on their own: forms, webhooks, mailboxes, calendars. */
export async function doors(world: World): Promise<readonly DoorLine[]> {
  return Promise.all(
    (await listIntakes(world.db)).map(async (row) => {
      const { id, kind, name, isOn, lastAt, taken, refused, problem } = row;
      const flows = (await flowsTaking(world.db, kind, name)).map((flow) => flow.flowName);
      return { id, kind, name, isOn, lastAt, taken, refused, problem, flows, address: addressOf(row) };
    }),
  );
}

function addressOf(row: IntakeRow): string {
  if (row.kind === 'form') return `/f/${row.slug}`;
  if (row.kind === 'webhook') return `/in/${row.slug}`;
  const settings = watchedSchema.parse(row.body);
  return settings.kind === 'mailbox' ? settings.user : new URL(settings.url).hostname;
}

/** Hosts of our own addresses, as far as the mailboxes we send from tell. */
export async function ourHosts(world: World): Promise<readonly string[]> {
  const boxes = await listMailboxes(world.db);
  return [...new Set(boxes.flatMap((box) => box.address.split('@')[1] ?? []))];
}
