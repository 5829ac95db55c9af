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

/** A report that somebody marked a mail of ours as unwanted, RFC 5965. */
export interface Complaint {
  /** `abuse`, `fraud`, `virus`, `other` … */
  readonly type: string;
  /** who complained; null where the provider keeps it to itself */
  readonly recipient: string | null;
  readonly originalMessageId: string | null;
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

/**
 * Reads the `message/feedback-report` part and the mail it is about, or its headers. Undefined for a report that takes one back
 * (`not-spam`) and for one that names no type.
 */
export function parseComplaint(reportPart: string, original: string): Complaint | undefined {
  const report = unfold(reportPart);
  const type = field(report, 'Feedback-Type')?.toLowerCase();
  if (type === undefined || type === 'not-spam') return undefined;
  const head = unfold(original).split(/\n\n/)[0] ?? '';
  const to = field(report, 'Original-Rcpt-To') ?? field(report, 'Removal-Recipient') ?? field(head, 'To');
  const recipient = /[^\s<>;,@]{1,64}@[^\s<>;,@]{1,255}/.exec(to ?? '')?.[0]?.toLowerCase() ?? null;
  return { type, recipient, originalMessageId: field(head, 'Message-ID') };
}
