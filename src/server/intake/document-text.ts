import { WorldFailure, type Box, type DocumentText } from '../ports';

/** A document as text; of a scan the letters are recognised, and where they cannot be, it says so. */
export async function documentText(box: Pick<Box, 'run'>, kind: 'pdf' | 'docx' | 'text', bytes: Uint8Array): Promise<DocumentText> {
  const read = await box.run('document', { kind, bytes });
  if (!read.isScan) return read;
  try {
    return { ...(await box.run('scan', { bytes })), hidden: read.hidden };
  } catch (error) {
    if (!(error instanceof WorldFailure)) throw error;
    return { ...read, says: `${read.says}; ${error.message}` };
  }
}
