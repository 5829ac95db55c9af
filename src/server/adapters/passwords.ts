import { hash, verify } from '@node-rs/argon2';
import type { Passwords } from '../ports';

/** argon2id at 19 MiB, two passes (OWASP's second choice); about 45 ms a check. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export const argonPasswords: Passwords = {
  hash: (password) => hash(password, COST),
  verify: (stored, password) => verify(stored, password),
};
