/** What is read of things that came from outside. */
import type { Instant } from '../../core/base';
import type { Block, Link, PageText } from '../../core/formats';
import type { MailSigns } from '../../core/reply';

export interface IncomingMail {
  readonly messageId: string;
  readonly from: string;
  readonly fromName: string;
  readonly subject: string;
  readonly text: string;
  readonly sentAt: Instant | null;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
  readonly autoSubmitted: boolean;
  /** what else its heads say of it */
  readonly signs?: MailSigns;
  /** the parts of a delivery status report, when it is one */
  readonly deliveryStatus: { readonly status: string; readonly original: string } | null;
  /** the parts of a complaint by a provider (RFC 5965), when it is one */
  readonly feedback?: { readonly report: string; readonly original: string };
  readonly files: readonly { readonly name: string; readonly bytes: Uint8Array }[];
}

export interface FetchedPage extends PageText {
  readonly url: string;
  readonly status: number;
  readonly links: readonly Link[];
}

export interface DocumentText {
  readonly blocks: readonly Block[];
  /** what a reader of it should know: that it is a scan, that it was cut; empty otherwise */
  readonly says: string;
  /** its pages are pictures: their letters have to be recognised */
  readonly isScan?: true;
  /** what stands in the file but not before the eyes of who reads it: shown as such, and evidence of nothing */
  readonly hidden: readonly HiddenText[];
}
export interface HiddenText {
  readonly text: string;
  /** “in the colour of the paper” */
  readonly why: string;
}
