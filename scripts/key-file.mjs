// The key that seals secrets and signs links: from the environment, or from a file made at the first start, readable by its owner only.
import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';

export const keyFile = (home) =>
  process.env.MILLRACE_KEY_FILE
    ? path.resolve(process.env.MILLRACE_KEY_FILE)
    : path.join(home, path.basename(path.dirname(home)) === '.local' ? 'key' : '.local/key');
export const newKey = () => randomBytes(32).toString('base64url');

/** The key in the file; undefined when there is none. */
export function readKey(home) {
  const file = keyFile(home);
  if (!fs.existsSync(file)) return undefined;
  const mode = fs.statSync(file).mode & 0o777;
  if (mode & 0o077) fs.chmodSync(file, 0o600);
  const key = fs.readFileSync(file, 'utf8').trim();
  if (key.length < 16) throw new Error(`${file} holds no key: put the key back that was in it, or set MILLRACE_SECRET`);
  return key;
}

/** The key of this installation; made when there is none. */
export function ownKey(home) {
  const known = readKey(home);
  if (known) return known;
  const key = newKey();
  fs.mkdirSync(path.dirname(keyFile(home)), { recursive: true });
  fs.writeFileSync(keyFile(home), `${key}\n`, { mode: 0o600, flag: 'wx' });
  return key;
}

/** A rotation that was cut off leaves the new key beside: the database may rest on either of the two. Undefined when there is none. */
export function newKeyBeside(home) {
  const file = `${keyFile(home)}.new`;
  return fs.existsSync(file) ? fs.readFileSync(file, 'utf8').trim() : undefined;
}
export const takeNewKey = (home) => fs.renameSync(`${keyFile(home)}.new`, keyFile(home));
