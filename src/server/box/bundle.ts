import { unzipSync } from 'fflate';
import { checkArchive } from './archive';
import type { BoxWork } from '../ports';

/** Everything of an archive that can belong to a bundle. */
export function filesOf({ bytes }: BoxWork['bundle']['in']): BoxWork['bundle']['out'] {
  checkArchive(bytes);
  return unzipSync(bytes, { filter: ({ name }) => /^(?:flow\.race|bundle\.json|things\/[^/]{1,200}\.json)$/.test(name) });
}
