#!/usr/bin/env node
// No word of any trade stands in src: what a business knows, asks and says is data of its workspace. The words are taken from the
// fields and questions of the demo worlds; those that everybody's code may use are in lint/trade-allowed.json. Tests and what
// tests are made of may speak of the demo; migrations are history and cannot be changed.
// `node lint/trade-words.mjs [FOLDER …]`, by default src.
import fs from 'node:fs';
import path from 'node:path';

const WORLDS = ['demo', 'demo/laundry'];
const EXEMPT = /\.test\.tsx?$|^src\/testing\/|^src\/server\/db\/migrations\/|^src\/core\/reader\/(?:weights\.json|learning\/priors\.json)$/;
const READ = /\.(?:ts|tsx|css|json|grammar)$/;
const read = (file) => JSON.parse(fs.readFileSync(file, 'utf8'));
const fold = (text) =>
  text
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase();

const allowed = new Set(read('lint/trade-allowed.json').words.map(fold));
const words = new Map();
const add = (text, where) => {
  const word = fold(text).replace(/\*$/, '').replace(/_/g, ' ').trim();
  if (word.length >= 4 && !allowed.has(word) && !words.has(word)) words.set(word, where);
};
// A field that every business has may be lent words by a world: its own name is everybody's.
const standard = new Set(
  [...fs.readFileSync('src/core/fields/standard.ts', 'utf8').matchAll(/field\('(\w+)', '(\w+)'/g)].map(
    ([, record, key]) => `${record}.${key}`,
  ),
);
for (const world of WORLDS) {
  const parts = (file, part) => (fs.existsSync(path.join(world, file)) ? read(path.join(world, file))[part] : []);
  for (const field of parts('fields.json', 'fields')) {
    const where = `field ${field.record}.${field.key} of ${world}`;
    const own = standard.has(`${field.record}.${field.key}`) ? [] : [field.key, field.label];
    for (const text of [...own, ...field.words, ...(field.options ?? []), ...(field.yearsIn ?? [])]) add(text, where);
  }
  for (const question of parts('questions.json', 'questions'))
    for (const text of [question.id, ...(question.words ?? []), ...(question.options ?? [])])
      add(text, `question ${question.id} of ${world}`);
  const { workspace } = read(path.join(world, 'workspace.json'));
  for (const text of workspace.name.split(' ')) add(text, `the name of ${world}`);
}

// A word of several parts may be written with spaces, underscores or in one, as code does.
const patterns = [...words].map(([word, where]) => [
  word,
  where,
  new RegExp(`(?<![\\p{L}\\p{N}])${word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/ /g, '[ _]?')}(?![\\p{L}\\p{N}])`, 'u'),
]);
const files = (folder) =>
  fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = path.join(folder, entry.name);
    return entry.isDirectory() ? files(at) : READ.test(at) ? [at] : [];
  });
let found = 0;
for (const folder of process.argv.slice(2).length > 0 ? process.argv.slice(2) : ['src'])
  for (const file of files(folder).filter((entry) => !EXEMPT.test(entry))) {
    const lines = fs.readFileSync(file, 'utf8').split('\n');
    // `mainCrop` is “main crop” too.
    const folded = lines.map((line) => fold(line.replace(/([a-z])([A-Z])/g, '$1 $2')));
    folded.forEach((line, i) => {
      for (const [word, where, pattern] of patterns)
        if (pattern.test(line)) {
          found += 1;
          process.stdout.write(`${file}:${i + 1}: “${word}” is a word of a trade (${where}): it belongs into the data\n`);
        }
    });
  }
process.exit(found === 0 ? 0 : 1);
