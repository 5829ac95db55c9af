/** A picture's size in dots, by the head of its file (PNG, third edition, 11.2.2; JPEG, ITU-T T.81, B.2.2); undefined for what is neither. */
export function pictureSize(bytes: Uint8Array): { readonly width: number; readonly height: number } | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length >= 24 && view.getUint32(0) === 0x89504e47) return { width: view.getUint32(16), height: view.getUint32(20) };
  if (bytes.length < 4 || view.getUint16(0) !== 0xffd8) return undefined;
  let at = 2;
  while (at + 9 <= bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1] ?? 0;
    // A frame's head says the size; four of the numbers between mean other things.
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker))
      return { width: view.getUint16(at + 7), height: view.getUint16(at + 5) };
    at += marker === 0xff ? 1 : 2 + view.getUint16(at + 2);
  }
  return undefined;
}

/** Smaller than this it is a sign or a portrait and no page that somebody photographed. */
const PAGE_SIDE = 700;

export function isPhotographedPage(bytes: Uint8Array): boolean {
  const size = pictureSize(bytes);
  return size !== undefined && Math.min(size.width, size.height) >= PAGE_SIDE;
}
