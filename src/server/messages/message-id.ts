/** A message's `Message-ID` follows from its own id, so that the same message always carries the same one, also after a crash (RFC 5322, 3.6.4). */
export const rfcIdOf = (messageId: string): string => `<${messageId}@millrace.example>`;
