/** The keyed sites that ship with Millrace: the demo's trade, and four that its questions were not made for. */
import fs from 'node:fs';
import path from 'node:path';
import { readKey, readKeys, type Key } from './key';
import { readSites, type Read } from './run';

const ROOT = path.resolve(import.meta.dirname, '../../..');
const json = (file: string): unknown => JSON.parse(fs.readFileSync(path.join(ROOT, file), 'utf8'));

/** A demo world's own questions before the sites of its stand-in web. */
export function demoKey(questions: string, answers: string, name: string): Key {
  const asked = (json(questions) as { readonly questions: readonly object[] }).questions;
  const key = json(answers) as { readonly readOn: string; readonly sites: object };
  const known = new Set(Object.values(key.sites as Record<string, object>).flatMap((site) => Object.keys(site)));
  return readKey(name, {
    today: key.readOn,
    questions: asked.filter((question) => known.has((question as { id: string }).id)),
    sites: key.sites,
    teach: [],
  });
}

export const demoSites = (): Read => readSites(demoKey('demo/questions.json', 'demo/answers.json', 'growing'), path.join(ROOT, 'demo/web'));

export const otherTrades = (): readonly Read[] =>
  ['a', 'b', 'c'].flatMap((set) =>
    readKeys(path.join(ROOT, 'evaluation/trades', set, 'key.json')).map((key) =>
      readSites(key, path.join(ROOT, 'evaluation/trades', set, 'sites')),
    ),
  );

/** Sites of the demo's trade are many and alike: each counts as much less. */
export const DEMO_WEIGHT = 0.2;

export const trainingSets = (): readonly { readonly read: Read; readonly weight: number }[] => [
  ...otherTrades().map((read) => ({ read, weight: 1 })),
  { read: demoSites(), weight: DEMO_WEIGHT },
];
