/** The demo's fields, for tests of what speaks of them. */
import fs from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { catalogueOf, ownFieldSchema, type Catalogue } from '../core/fields';

const FILE = path.resolve('demo/fields.json');
const { fields } = z.object({ fields: z.array(ownFieldSchema) }).parse(JSON.parse(fs.readFileSync(FILE, 'utf8')));

export const DEMO_FIELDS: Catalogue = catalogueOf(fields);
