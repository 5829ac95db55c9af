import type { FileKind } from '../../core/intake';
import { WorldFailure, type Box, type DocumentText } from '../ports';

/** A document as text; of a scan or a photograph the letters are recognised, and where they cannot be, it says so. */
export async function documentText(box: Pick<Box, 'run'>, kind: FileKind, bytes: Uint8Array): Promise<DocumentText> {
  if (kind === 'picture') return box.run('scan', { kind, bytes });
  const read = await box.run('document', { kind, bytes });
  if (!read.isScan) return read;
  try {
    return { ...(await box.run('scan', { kind: 'pdf', bytes })), hidden: read.hidden };
  } catch (error) {
    if (!(error instanceof WorldFailure)) throw error;
    return { ...read, says: `${read.says}; ${error.message}` };
  }
}
