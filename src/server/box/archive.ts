import { WorldFailure } from '../ports';
import { ARCHIVE_LIMITS } from './limits';

const END = 0x06054b50;
const ENTRY = 0x02014b50;
const END_BYTES = 22;
const ENTRY_BYTES = 46;
const MB = 1024 * 1024;

export interface ArchiveEntry {
  readonly name: string;
  readonly packed: number;
  readonly unpacked: number;
}

const refused = (message: string): WorldFailure => new WorldFailure('too large', message, false);
const broken = (): Error => new Error('the archive is damaged');

/** What a ZIP archive says it holds (APPNOTE 4.3.12, 4.3.16), without unpacking any of it. */
export function archiveEntries(bytes: Uint8Array): readonly ArchiveEntry[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = endRecord(view);
  const count = view.getUint16(end + 10, true);
  if (count > ARCHIVE_LIMITS.entries)
    throw refused(
      `this document holds ${count.toLocaleString('en-GB')} files: at most ${ARCHIVE_LIMITS.entries.toLocaleString('en-GB')} are read`,
    );
  const out: ArchiveEntry[] = [];
  let at = view.getUint32(end + 16, true);
  for (let i = 0; i < count; i++) {
    if (at + ENTRY_BYTES > view.byteLength || view.getUint32(at, true) !== ENTRY) throw broken();
    const nameBytes = view.getUint16(at + 28, true);
    const name = new TextDecoder().decode(bytes.subarray(at + ENTRY_BYTES, at + ENTRY_BYTES + nameBytes));
    out.push({ name, packed: view.getUint32(at + 20, true), unpacked: view.getUint32(at + 24, true) });
    at += ENTRY_BYTES + nameBytes + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
  }
  return out;
}

function endRecord(view: DataView): number {
  for (let at = view.byteLength - END_BYTES; at >= Math.max(0, view.byteLength - END_BYTES - 0xffff); at--)
    if (view.getUint32(at, true) === END) return at;
  throw broken();
}

/** Refuses an archive that would unpack to more than is read, before anything of it is unpacked. */
export function checkArchive(bytes: Uint8Array): readonly ArchiveEntry[] {
  const entries = archiveEntries(bytes);
  const unpacked = entries.reduce((sum, entry) => sum + entry.unpacked, 0);
  if (unpacked > ARCHIVE_LIMITS.unpackedMb * MB) throw refused(`this document unpacks to more than ${ARCHIVE_LIMITS.unpackedMb} MB`);
  const tight = entries.find(
    (entry) => entry.unpacked > ARCHIVE_LIMITS.ratioFromMb * MB && entry.unpacked > entry.packed * ARCHIVE_LIMITS.ratio,
  );
  if (tight) throw refused(`this document unpacks to more than ${ARCHIVE_LIMITS.ratio} times its size`);
  // An archive may lie about its sizes: what is really unpacked is stopped by the limits of memory and time.
  return entries;
}
