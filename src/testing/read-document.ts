/** `read-document.ts KIND FILE`: what the document reader makes of a file, as JSON. Its PDF library is a module that Jest cannot load. */
import fs from 'node:fs';
import { openBox } from '../server/box';
import { documentText } from '../server/intake/document-text';
import { WorldFailure } from '../server/ports';

const [kind, file = ''] = process.argv.slice(2);
if (kind !== 'pdf' && kind !== 'docx' && kind !== 'text' && kind !== 'picture') throw new Error('pdf, docx, text or picture');
documentText(openBox, kind, fs.readFileSync(file)).then(
  (read) => {
    process.stdout.write(JSON.stringify(read));
  },
  (error: unknown) => {
    const { code, message, retryable } =
      error instanceof WorldFailure ? error : { code: 'crash', message: String(error), retryable: false };
    process.stdout.write(JSON.stringify({ code, message, retryable }));
  },
);
