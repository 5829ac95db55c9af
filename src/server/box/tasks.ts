import { tryOut } from '../../core/reader/learning';
import type { BoxKind, BoxWork } from '../ports';
import { filesOf } from './bundle';
import { calendarsIn, meetingsOf } from './calendar';
import { readDocument } from './documents';
import { draftOf, findingsOf } from './flow';
import { listOf } from './list';
import { readMail } from './mail';
import { pageOf } from './page';
import { readPhotograph, readScan } from './scan';

/** What is done with each kind of thing from outside. */
export const TASKS: { readonly [K in BoxKind]: (input: BoxWork[K]['in']) => BoxWork[K]['out'] | Promise<BoxWork[K]['out']> } = {
  document: ({ kind, bytes }) => readDocument(kind, bytes),
  scan: ({ kind, bytes }) => (kind === 'pdf' ? readScan(bytes) : readPhotograph(bytes)),
  page: pageOf,
  mail: ({ bytes }) => readMail(Buffer.from(bytes)),
  calendar: meetingsOf,
  'calendar answer': calendarsIn,
  list: listOf,
  flow: findingsOf,
  draft: draftOf,
  tried: tryOut,
  bundle: filesOf,
};
