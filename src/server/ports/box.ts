/** The contract of reading what came from outside: kinds of work, what goes in and what comes out. */
import type { Instant } from '../../core/base';
import type { DayOrder } from '../../core/fields';
import type { Finding, Library } from '../../core/flow/check';
import type { Encoding, Meeting } from '../../core/intake';
import type { Asked } from '../../core/reader';
import type { KnownSite, Shown, Tried } from '../../core/reader/learning';
import type { DocumentText, FetchedPage, IncomingMail } from './read';

/** A list as its first part shows it; all of its rows lie in a file, one JSON array a line, each as wide as the headings. */
export interface ReadList {
  readonly headings: readonly string[];
  /** rows of the file, 1-based: of the headings */
  readonly headingRow: number;
  readonly encoding: Encoding;
  readonly delimiter: string;
  readonly total: number;
  /** by column, which number of a day comes first where the column tells */
  readonly dayOrders: readonly (DayOrder | null)[];
  /** of a workbook or an archive: the sheets or lists in it, and which of them this is */
  readonly parts?: readonly string[];
  readonly part?: string;
  /** what a reader of it should know: cells behind the last heading, joined into the last column */
  readonly says: readonly string[];
}

export interface BoxWork {
  readonly document: { readonly in: { readonly kind: 'pdf' | 'docx' | 'text'; readonly bytes: Uint8Array }; readonly out: DocumentText };
  /** a PDF whose pages are pictures */
  readonly scan: { readonly in: { readonly kind: 'pdf' | 'picture'; readonly bytes: Uint8Array }; readonly out: DocumentText };
  /** `type`: the Content-Type header */
  readonly page: {
    readonly in: { readonly url: string; readonly status: number; readonly type: string; readonly bytes: Uint8Array };
    readonly out: FetchedPage;
  };
  readonly mail: { readonly in: { readonly bytes: Uint8Array }; readonly out: IncomingMail };
  /** iCalendar texts, each by itself: one that cannot be read says why and the others stay */
  readonly calendar: {
    readonly in: { readonly texts: readonly string[]; readonly from: Instant; readonly until: Instant; readonly zone: string };
    readonly out: { readonly meetings: readonly Meeting[]; readonly refused: readonly { readonly raw: string; readonly why: string }[] };
  };
  /** the calendars inside a CalDAV answer (RFC 4791) */
  readonly 'calendar answer': { readonly in: { readonly xml: string }; readonly out: readonly string[] };
  /** reads the file at `path`, writes its rows to `rows` as lines `[file row, [cells]]` */
  readonly list: {
    readonly in: { readonly path: string; readonly rows: string; readonly part?: string };
    readonly out: { readonly list?: ReadList; readonly problem?: string };
  };
  readonly flow: { readonly in: { readonly text: string; readonly library: Library }; readonly out: readonly Finding[] };
  /** a flow text as it is kept: printed with its marks, those of `before` for lines that stayed */
  readonly draft: {
    readonly in: { readonly text: string; readonly before: string | null };
    readonly out: { readonly name: string; readonly text: string };
  };
  /** a question before and after it was changed and taught, on sites read before */
  readonly tried: {
    readonly in: {
      readonly before: Asked;
      readonly draft: Asked;
      readonly shown: readonly Shown[];
      readonly leftOut: readonly string[];
      readonly sites: readonly KnownSite[];
      readonly ordinary: readonly string[];
      readonly host: string | null;
      readonly now: Instant;
    };
    readonly out: Tried;
  };
  /** texts of the files in an archive, by their paths */
  readonly bundle: { readonly in: { readonly bytes: Uint8Array }; readonly out: Readonly<Record<string, Uint8Array>> };
}
export type BoxKind = keyof BoxWork;

/**
 * Reads things from outside where they can harm nobody. Throws `WorldFailure` that names what went over a limit; such a thing
 * is not worth trying again by itself. Whatever is read, the process that asks goes on.
 */
export interface Box {
  run<K extends BoxKind>(kind: K, input: BoxWork[K]['in']): Promise<BoxWork[K]['out']>;
  close(): Promise<void>;
}
