/** What each page listens to. */
import fs from 'node:fs';
import path from 'node:path';
import { isTopic } from '../../../api';
import { shownAt } from './shown';

const ROOT = path.resolve('src/app/(in)');
const pages = (folder: string): string[] =>
  fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (entry.isDirectory()) return pages(path.join(folder, entry.name));
    return entry.name === 'page.tsx' ? [`/${path.relative(ROOT, folder)}`] : [];
  });
const ID = '00000000-0000-4000-8000-000000000001';

test.each(pages(ROOT))('%s says what it shows', (page) => {
  const shown = shownAt(page.replace(/\[\w+\]/g, ID));
  expect(shown).toBeDefined();
  expect(shown?.filter((topic) => !isTopic(topic))).toEqual([]);
});

test('a page about one thing listens to that thing; a page with a name of its own is no id', () => {
  expect(shownAt(`/flows/${ID}/trips`)).toEqual([`flow:${ID}`]);
  expect(shownAt('/flows/from-file')).toEqual([]);
  expect(shownAt(`/messages/${ID}`)).toEqual([`thread:${ID}`]);
  expect(shownAt('/messages/rules')).toEqual(['messages']);
  expect(shownAt('/nowhere')).toBeUndefined();
});
