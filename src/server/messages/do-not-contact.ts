/**
 * Who is not written to, put there by hand. Promises: what is planned for an address goes nowhere from then on; who asked not to be written to
 * is not taken off again by a click.
 */
import fs from 'node:fs';
import type { FileAnswer } from '../../api';
import type { Instant } from '../../core/base';
import { readTable } from '../../core/intake';
import { addDoNotContact, liftDoNotContact, listDoNotContact, whyDoNotContact } from './store/do-not-contact';
import { insertAudit } from '../access/store/audit';
import { telName } from './ways';
import { csvOf } from '../platform/csv';
import { Refusal, type Actor, type World } from '../platform/world';

export interface Barred {
  readonly email: string;
  readonly why: string;
  readonly at: Instant;
}
export async function doNotContactList(world: World): Promise<Barred[]> {
  return listDoNotContact(world.db);
}

const ADDRESS = /^[^\s@<>",;]{1,64}@[\p{L}\p{N}-]{1,63}(?:\.[\p{L}\p{N}-]{1,63}){1,8}$/u;
const DOMAIN = /^@?(?:\*\.)?((?:[\p{L}\p{N}-]{1,63}\.){1,8}\p{L}{2,24})$/u;
const NUMBER = /^(?:tel:)?\+[\d ()/.-]{7,24}$/;
/** An address as it is kept, `@domain` for all addresses of a domain and of those below it, or a number as `tel:+44…`; undefined for none of them. */
export function barredName(text: string): string | undefined {
  const name = text
    .trim()
    .replace(/^mailto:/i, '')
    .replace(/^<|>$/g, '')
    .toLowerCase();
  if (ADDRESS.test(name)) return name;
  if (NUMBER.test(name)) return telName(name);
  const domain = DOMAIN.exec(name)?.[1];
  return domain === undefined ? undefined : `@${domain}`;
}

export async function barAddress(world: World, actor: Actor, ask: { readonly email: string; readonly why: string }): Promise<Barred[]> {
  const email = barredName(ask.email);
  if (email === undefined)
    throw new Refusal(
      'not valid',
      `“${ask.email.trim()}” is no address, domain or number: for example ann@firm.example, @firm.example or +44 1632 960417`,
    );
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const known = await whyDoNotContact(tx, email);
    if (known !== undefined) throw new Refusal('conflict', `${email} is not written to already: ${known}`);
    const why = ask.why.trim() === '' ? `put here by ${actor.name}` : `put here by ${actor.name}: ${ask.why.trim()}`;
    await addDoNotContact(tx, email, why, now);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'put an address among those not written to', detail: { email, why } });
  });
  return doNotContactList(world);
}

/** The word written down when somebody asked not to be written to. */
const ASKED = 'unsubscribed';

export async function liftAddress(world: World, actor: Actor, email: string): Promise<Barred[]> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const why = await whyDoNotContact(tx, email);
    if (why === undefined) throw new Refusal('not found', `${email} is not on the list`);
    if (why === ASKED) throw new Refusal('conflict', `${email} asked not to be written to: only they can take that back`);
    await liftDoNotContact(tx, email);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'took an address off those not written to', detail: { email, why } });
  });
  return doNotContactList(world);
}

export interface ListBarred {
  readonly put: number;
  readonly known: number;
  /** rows that name nobody, by their place in the file; the first twenty */
  readonly passedBy: readonly { readonly row: number; readonly says: string }[];
  readonly items: readonly Barred[];
}
const MOST_SHOWN = 20;
const WHY = /why|reason|grund|warum|reden|motivo|motif|raison|note|remark/i;

/** Puts everybody of a list there: a CSV with an address or a domain in each row, and a reason where it has one. */
export async function barList(world: World, actor: Actor, file: { readonly name: string; readonly path: string }): Promise<ListBarred> {
  const { table, problem } = readTable(fs.readFileSync(file.path));
  if (!table) throw new Refusal('not valid', `${file.name}: ${problem?.message ?? 'cannot be read'}`);
  const whyAt = table.headings.findIndex((heading) => WHY.test(heading));
  const now = await world.clock.now();
  const passedBy: ListBarred['passedBy'][number][] = [];
  // A single column of addresses may have been taken for a heading and rows.
  const rows = [...(table.headings.some((heading) => barredName(heading)) ? [table.headings] : []), ...table.rows];
  let put = 0;
  let known = 0;
  await world.db.begin(async (tx) => {
    for (const [i, cells] of rows.entries()) {
      const name = cells.map(barredName).find((found) => found !== undefined);
      if (name === undefined) {
        if (cells.some((cell) => cell.trim() !== '') && passedBy.length < MOST_SHOWN)
          passedBy.push({ row: table.rowNumbers[i] ?? i + 1, says: 'no address, domain or number' });
        continue;
      }
      if ((await whyDoNotContact(tx, name)) !== undefined) {
        known += 1;
        continue;
      }
      const said = cells[whyAt]?.trim() ?? '';
      await addDoNotContact(tx, name, `from the list ${file.name}, by ${actor.name}${said === '' ? '' : `: ${said.slice(0, 200)}`}`, now);
      put += 1;
    }
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'put a list among those not written to',
      detail: { list: file.name, put, known },
    });
  });
  return { put, known, passedBy, items: await doNotContactList(world) };
}

/** The whole list as CSV, to be kept or brought elsewhere. */
export async function barredFile(world: World): Promise<FileAnswer> {
  const all = await listDoNotContact(world.db, 1_000_000);
  const rows = all.map(({ email, why, at }) => [
    email.replace(/^@|^tel:/, ''),
    email.startsWith('@') ? 'domain' : email.startsWith('tel:') ? 'number' : 'address',
    why,
    new Date(at).toISOString(),
  ]);
  return { name: 'do-not-contact.csv', type: 'text/csv; charset=utf-8', content: csvOf([['who', 'kind', 'why', 'since'], ...rows]) };
}
