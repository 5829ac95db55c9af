import { createHash } from 'node:crypto';

/** Tokens and codes are kept only as digests: reading the database gives nobody a session. */
export const digest = (token: string): string => createHash('sha256').update(token).digest('hex');
