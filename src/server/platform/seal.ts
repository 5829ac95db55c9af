import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

/** AES-256-GCM under a key drawn from the workspace's secret; `base64url(nonce).base64url(tag).base64url(text)`. */
const keyOf = (secret: string): Buffer => Buffer.from(hkdfSync('sha256', secret, 'millrace', 'secrets at rest', 32));

export function seal(secret: string, text: string): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', keyOf(secret), nonce);
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return [nonce, cipher.getAuthTag(), sealed].map((part) => part.toString('base64url')).join('.');
}

/** Throws when the secret is another one than it was sealed with, or the text was changed. */
export function unseal(secret: string, sealed: string): string {
  const [nonce, tag, text] = sealed.split('.').map((part) => Buffer.from(part, 'base64url'));
  if (!nonce || !tag || !text) throw new Error('a sealed secret cannot be read: it is not one of ours');
  const decipher = createDecipheriv('aes-256-gcm', keyOf(secret), nonce);
  decipher.setAuthTag(tag);
  return Buffer.concat([decipher.update(text), decipher.final()]).toString('utf8');
}
