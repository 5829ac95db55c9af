import { demoWorkspace, testWorld, type TestWorld } from '../../testing/world';
import { addDoNotContact, isDoNotContact } from '../store/messages';
import { barAddress, doNotContactList, liftAddress } from './do-not-contact';
import type { Actor } from './world';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  world = await testWorld();
  ({ ines } = await demoWorkspace(world));
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

test('who asked not to be written to stays, whoever clicks', async () => {
  await addDoNotContact(world.db, 'a@b.example', 'unsubscribed', await world.clock.now());
  await expect(liftAddress(world, ines, 'a@b.example')).rejects.toThrow('only they can take that back');
  expect(await doNotContactList(world)).toHaveLength(1);
});
