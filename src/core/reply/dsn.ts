/** A delivery status report, RFC 3464: what happened to one recipient. */
export interface DeliveryStatus {
  readonly recipient: string | null;
  readonly action: string;
  /** RFC 3463 code, such as 5.1.1 */
  readonly status: string;
  readonly diagnostic: string | null;
  readonly originalMessageId: string | null;
  /** a permanent failure: the address must not be written to again */
  readonly hard: boolean;
}

const unfold = (text: string): string => text.replace(/\r/g, '').replace(/\n[ \t]+/g, ' ');
const field = (text: string, name: string): string | null => new RegExp(`^${name}:\\s*(.+)$`, 'im').exec(text)?.[1]?.trim() ?? null;
const address = (value: string | null): string | null => value?.split(';').at(-1)?.trim().toLowerCase() ?? null;

/** Reads the `message/delivery-status` part and, when it is there, the headers of the mail that bounced. */
export function parseDeliveryStatus(statusPart: string, originalHeaders: string): DeliveryStatus {
  const status = unfold(statusPart);
  const diagnostic = field(status, 'Diagnostic-Code');
  // Some senders write 5.0.0 while the diagnostic knows better.
  const code = /\b([245]\.\d{1,3}\.\d{1,3})\b/.exec(diagnostic ?? '')?.[1] ?? field(status, 'Status') ?? '5.0.0';
  const action = field(status, 'Action')?.toLowerCase() ?? 'failed';
  return {
    recipient: address(field(status, 'Final-Recipient') ?? field(status, 'Original-Recipient')),
    action,
    status: code,
    diagnostic,
    originalMessageId: field(unfold(originalHeaders), 'Message-ID'),
    hard: action === 'failed' && code.startsWith('5'),
  };
}
