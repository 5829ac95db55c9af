import type { z } from 'zod';
import type { InstantPath } from './instants';
import { instant } from './op';

/** Finds every place of a schema where a moment stands. Of a schema that holds itself, the first round. */
export function instantPaths(schema: z.ZodType): readonly InstantPath[] {
  const found = new Set<InstantPath>();
  walk(schema, [], new Set(), found);
  return [...found].sort();
}

function walk(schema: z.core.$ZodType, at: readonly string[], above: ReadonlySet<z.core.$ZodType>, found: Set<InstantPath>): void {
  if (above.has(schema)) return;
  const { def } = (schema as z.core.$ZodTypes)._zod;
  const into = (inner: z.core.$ZodType, ...step: string[]): void => {
    walk(inner, [...at, ...step], new Set([...above, schema]), found);
  };
  switch (def.type) {
    case 'pipe':
      if (def.in === instant._zod.def.in) found.add(at.join('.'));
      else into(def.in);
      return;
    case 'object':
      for (const [name, inner] of Object.entries(def.shape)) into(inner, name);
      return;
    case 'array':
      into(def.element, '*');
      return;
    case 'record':
      into(def.valueType, '*');
      return;
    case 'union':
      for (const option of def.options) into(option);
      return;
    case 'tuple':
      for (const [i, item] of def.items.entries()) into(item, String(i));
      return;
    case 'lazy':
      into(def.getter());
      return;
    case 'nullable':
    case 'optional':
    case 'default':
    case 'prefault':
    case 'readonly':
    case 'catch':
    case 'nonoptional':
      into(def.innerType);
      return;
    default:
  }
}
