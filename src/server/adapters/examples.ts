import fs from 'node:fs';
import path from 'node:path';
import { parse } from 'csv-parse/sync';
import { z } from 'zod';
import type { Examples } from '../ports';

/** Parts of a description that may stand in a file of their own, under the same name there. */
const PARTS = ['fields', 'questions'] as const;
const fileSchema = z.looseObject({
  example: z.object({ flow: z.string() }),
  crm: z.object({ companies: z.string(), people: z.string() }),
});

/** A workspace's description with the parts it names by file. Paths in it begin where this process runs. */
export function describedIn(file: string): Readonly<Record<string, unknown>> {
  const described = JSON.parse(fs.readFileSync(file, 'utf8')) as Record<string, unknown>;
  const parts = PARTS.flatMap((part) => {
    const named = described[part];
    return typeof named === 'string' ? [[part, (JSON.parse(fs.readFileSync(named, 'utf8')) as Record<string, unknown>)[part]]] : [];
  });
  return { ...described, ...(Object.fromEntries(parts) as Record<string, unknown>) };
}

/** Worlds in a folder, and in the folders of it, each known by its own folder's name. */
export function exampleFiles(folder: string): Examples {
  const files = (): ReadonlyMap<string, string> => {
    if (!fs.existsSync(folder)) return new Map();
    const folders = [folder, ...fs.readdirSync(folder).map((name) => path.join(folder, name))];
    return new Map(
      folders.map((each) => [path.basename(each), path.join(each, 'workspace.json')] as const).filter(([, file]) => fs.existsSync(file)),
    );
  };
  const rows = (file: string): Record<string, string>[] => parse<Record<string, string>>(fs.readFileSync(file), { columns: true });
  return {
    list: () => Promise.resolve([...files().keys()]),
    read(name) {
      const file = files().get(name);
      if (file === undefined) return Promise.reject(new Error(`there is no example “${name}”`));
      const workspace = describedIn(file);
      const { example, crm } = fileSchema.parse(workspace);
      return Promise.resolve({
        workspace,
        flow: fs.readFileSync(example.flow, 'utf8'),
        companies: rows(crm.companies),
        people: rows(crm.people),
      });
    },
  };
}
