/** Files that come along with entries: known by what is in them, kept, and read as text. */
import { cleanText, cutText, stableId, type Instant } from '../../core/base';
import { fileKind, type FileKind } from '../../core/intake';
import { WorldFailure, type DocumentText, type HiddenText } from '../ports';
import type { Tx } from '../db';
import { documentText } from './document-text';
import { insertFile } from './store/intakes';
import type { World } from '../platform/world';

export interface EntryFile {
  /** the answer it stands for */
  readonly question: string;
  readonly name: string;
  readonly kind: FileKind;
  readonly bytes: Uint8Array;
}

/** A file with what was read of it. */
export interface ReadEntryFile extends EntryFile {
  /** what the lines of a flow see of it: its text, or why it has none, in brackets */
  readonly text: string;
  readonly says: string;
  readonly hidden: readonly HiddenText[];
}

const DOCUMENT_MAX = 200_000;

export const plainName = (name: string): string => cutText(cleanText(name).replace(/[\\/\p{Cc}]/gu, '_'), 120);

/** The files that are documents, whatever they are called. */
export const documentsAmong = (
  question: string,
  files: readonly { readonly name: string; readonly bytes: Uint8Array }[],
): readonly EntryFile[] =>
  files.flatMap(({ name, bytes }) => {
    const kind = fileKind(bytes);
    return kind === undefined ? [] : [{ question, name: plainName(name), kind, bytes }];
  });

const MARKED = /^(?:[-–—•·*▪◦‣►●○✓]|\(?\w{1,4}[.)])\s/;

/** A document as text: a line a paragraph, an empty line before each heading, a mark before what its author listed. */
export const textOf = ({ blocks }: Pick<DocumentText, 'blocks'>): string =>
  blocks
    .map(({ kind, text }, i) => {
      if (kind === 'item') return MARKED.test(text) ? text : `• ${text}`;
      return kind === 'heading' && i > 0 ? `\n${text}` : text;
    })
    .join('\n');

/** Reads a file; one without any text, or one that cannot be read, says so where its text would stand. */
export async function readEntryFile(world: World, file: EntryFile): Promise<ReadEntryFile> {
  try {
    const read = await documentText(world.box, file.kind, file.bytes);
    const text = textOf(read);
    const { says, hidden } = read;
    return { ...file, says, hidden, text: text === '' ? `(${file.name}: ${says})` : cleanText(cutText(text, DOCUMENT_MAX)) };
  } catch (error) {
    if (!(error instanceof WorldFailure)) throw error;
    return { ...file, says: error.message, hidden: [], text: `(${file.name}: ${error.message})` };
  }
}

export async function keepFiles(tx: Tx, entryId: string, files: readonly ReadEntryFile[], now: Instant): Promise<void> {
  for (const [i, file] of files.entries())
    await insertFile(
      tx,
      {
        id: stableId('file', entryId, file.question, ...(i === 0 ? [] : [String(i)])),
        entryId,
        question: file.question,
        name: file.name,
        kind: file.kind,
        size: file.bytes.length,
        bytes: file.bytes,
        says: file.says,
        hidden: file.hidden,
      },
      now,
    );
}
