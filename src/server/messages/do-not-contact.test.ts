import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { demoWorld, type TestWorld } from '../../testing/world';
import { addDoNotContact, isDoNotContact } from './store/do-not-contact';
import { barAddress, barList, barredFile, doNotContactList, liftAddress } from './do-not-contact';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

test('an address is put there by hand with who and why, once, and taken off again', async () => {
  const list = await barAddress(world, ines, { email: ' Mara@Oakmere-Glass.example ', why: 'told us on the phone' });
  expect(list).toMatchObject([{ email: 'mara@oakmere-glass.example', why: 'put here by Ines Okafor-Brandt: told us on the phone' }]);
  expect(await isDoNotContact(world.db, 'mara@oakmere-glass.example')).toBe(true);
  await expect(barAddress(world, ines, { email: 'mara@oakmere-glass.example', why: '' })).rejects.toThrow('is not written to already');
  expect(await liftAddress(world, ines, 'mara@oakmere-glass.example')).toEqual([]);
  await expect(liftAddress(world, ines, 'mara@oakmere-glass.example')).rejects.toThrow('is not on the list');
});

test('a domain bars its addresses and those below it, and nobody else', async () => {
  await barAddress(world, ines, { email: 'Firm.example', why: '' });
  for (const email of ['ann@firm.example', 'ben@post.firm.example', '@firm.example'])
    expect([email, await isDoNotContact(world.db, email)]).toEqual([email, true]);
  for (const email of ['ann@otherfirm.example', 'ann@firm.example.org', 'firm.example@b.example', null])
    expect([email, await isDoNotContact(world.db, email)]).toEqual([email, false]);
  expect(await liftAddress(world, ines, '@firm.example')).toEqual([]);
  await expect(barAddress(world, ines, { email: 'nobody at all', why: '' })).rejects.toThrow('no address, domain or number');
});

test('a list goes in row by row, and comes out as one', async () => {
  await barAddress(world, ines, { email: 'known@b.example', why: '' });
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'barred-'));
  const file = path.join(folder, 'list.csv');
  fs.writeFileSync(
    file,
    'Name;Mail;Reason\nAnn;Ann@B.example;asked by phone\nFirm;@firm.example;\nKnown;known@b.example;x\nNobody;none;y\n',
  );
  const said = await barList(world, ines, { name: 'list.csv', path: file });
  expect(said).toMatchObject({ put: 2, known: 1, passedBy: [{ row: 5, says: 'no address, domain or number' }] });
  expect(said.items.find(({ email }) => email === 'ann@b.example')?.why).toBe(
    'from the list list.csv, by Ines Okafor-Brandt: asked by phone',
  );
  fs.writeFileSync(file, 'one@c.example\ntwo@c.example\n');
  expect(await barList(world, ines, { name: 'plain.csv', path: file })).toMatchObject({ put: 2, known: 0 });
  const { content } = await barredFile(world);
  expect(String(content).trim().split('\n')).toHaveLength(6);
  expect(String(content)).toContain('firm.example,domain');
  fs.rmSync(folder, { recursive: true });
});

test('who asked not to be written to stays, whoever clicks', async () => {
  await addDoNotContact(world.db, 'a@b.example', 'unsubscribed', await world.clock.now());
  await expect(liftAddress(world, ines, 'a@b.example')).rejects.toThrow('only they can take that back');
  expect(await doNotContactList(world)).toHaveLength(1);
});
