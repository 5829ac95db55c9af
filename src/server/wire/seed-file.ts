import fs from 'node:fs';
import { workspaceSeedSchema, type WorkspaceSeed } from '../workspace/seed';

/** Parts of a description that may stand in a file of their own, under the same name there. */
const PARTS = ['fields', 'questions'] as const;

/** A workspace description with the parts it names by file. */
export function readSeed(file: string): WorkspaceSeed {
  const described = JSON.parse(fs.readFileSync(file, 'utf8')) as Record<string, unknown>;
  const parts = PARTS.flatMap((part) => {
    const named = described[part];
    return typeof named === 'string' ? [[part, (JSON.parse(fs.readFileSync(named, 'utf8')) as Record<string, unknown>)[part]]] : [];
  });
  return workspaceSeedSchema.parse({ ...described, ...Object.fromEntries(parts) });
}
