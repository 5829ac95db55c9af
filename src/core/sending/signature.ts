/** A mail's words with what stands under each mail of its mailbox, behind the line that mail programs know it by (RFC 3676, 4.3). */
export const withSignature = (text: string, signature: string): string =>
  signature.trim() === '' ? text : `${text.trimEnd()}\n\n-- \n${signature.trim()}\n`;
