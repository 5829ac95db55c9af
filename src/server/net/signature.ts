import { createHmac, timingSafeEqual } from 'node:crypto';

/** The signature of Standard Webhooks: HMAC-SHA256 over `id.seconds.body`, with the secret behind `whsec_` in base64. */
export function signature(secret: string, id: string, seconds: number, body: string): string {
  const key = Buffer.from(secret.replace(/^whsec_/, ''), 'base64');
  return `v1,${createHmac('sha256', key).update(`${id}.${seconds}.${body}`).digest('base64')}`;
}

/** How far a sender's clock may be off, and how old a message may be. */
const TOLERANCE_S = 300;

/** Whether a message was signed with that secret, lately: the header may hold several signatures, parted by spaces. */
export function isSigned(
  secret: string,
  message: { readonly id: string; readonly seconds: number; readonly body: string; readonly signatures: string },
  nowSeconds: number,
): boolean {
  if (!Number.isFinite(message.seconds) || Math.abs(nowSeconds - message.seconds) > TOLERANCE_S) return false;
  const want = Buffer.from(signature(secret, message.id, message.seconds, message.body));
  return message.signatures.split(' ').some((given) => {
    const got = Buffer.from(given);
    return got.length === want.length && timingSafeEqual(got, want);
  });
}
