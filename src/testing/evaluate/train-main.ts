/** Learns the reader's weights from the keyed sites and writes them where it reads them. The same sites give the same weights. */
import fs from 'node:fs';
import path from 'node:path';
import { train } from './run';
import { trainingSets } from './sets';

const began = performance.now();
const model = train(trainingSets());
const file = path.resolve(import.meta.dirname, '../../core/reader/weights.json');
const weights = Object.fromEntries(Object.entries(model.weights).sort(([a], [b]) => a.localeCompare(b)));
fs.writeFileSync(file, `${JSON.stringify({ ...model, weights }, null, 2)}\n`);
process.stdout.write(`${Object.keys(weights).length} weights in ${((performance.now() - began) / 1000).toFixed(1)} s\n`);
