import { decoderOf } from '../../core/base';
import { readPage, textBlocks } from '../../core/formats';
import type { BoxWork, FetchedPage } from '../ports';

const TEXT_MAX = 200_000;

/** Bytes of a page in the charset they declare, else UTF-8, else Windows-1252; plain text is its lines. */
export function pageOf({ url, status, type, bytes }: BoxWork['page']['in']): FetchedPage {
  const body = decode(Buffer.from(bytes), type);
  return type.startsWith('text/plain')
    ? { url, status, links: [], title: '', language: '', published: null, blocks: textBlocks(body.slice(0, TEXT_MAX)) }
    : { url, status, ...readPage(body, url) };
}

export function decode(bytes: Buffer, type: string): string {
  const declared =
    /charset=["']?([\w-]{1,40})/i.exec(type)?.[1] ??
    /<meta[^>]{1,200}?charset=["']?([\w-]{1,40})/i.exec(bytes.subarray(0, 2048).toString('latin1'))?.[1];
  for (const label of [declared ?? 'utf-8', 'utf-8']) {
    try {
      return decoderOf(label, { fatal: true }).decode(bytes);
    } catch {
      /* not that charset, or no such one: the next is tried */
    }
  }
  return decoderOf('windows-1252').decode(bytes);
}
