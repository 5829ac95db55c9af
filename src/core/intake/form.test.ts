import { DEMO_FIELDS } from '../../testing/fields';
import fc from 'fast-check';
import { zipSync, strToU8 } from 'fflate';
import {
  askedOf,
  checkForm,
  entryRow,
  fileKind,
  formSchema,
  readAnswer,
  readEntry,
  readRow,
  type Form,
  type FormQuestion,
  NOWHERE,
} from './index';

const question = (id: string, more: Partial<FormQuestion> = {}): FormQuestion => ({
  id,
  label: id,
  help: '',
  kind: 'text',
  required: false,
  when: '',
  fills: null,
  ...more,
});
const form = (...questions: readonly FormQuestion[]): Form => formSchema.parse({ title: 'Enquiry', pages: [{ questions }] });

const enquiry = form(
  question('name', { required: true, fills: 'person.name' }),
  question('email', { kind: 'e-mail', required: true, fills: 'person.email' }),
  question('area', { kind: 'number', unit: 'ha', fills: 'company.heated_area' }),
  question('has', { kind: 'choice', options: ['yes', 'no'] }),
  question('which', { when: 'has = "yes"', required: true }),
  question('agreed', { kind: 'consent', required: true }),
);

describe('a form as it is built', () => {
  test('a sound one has no problems', () => {
    expect(checkForm(enquiry, DEMO_FIELDS)).toEqual([]);
  });

  test.each([
    ['two of one name', form(question('name', { fills: 'person.name' }), question('name')), 'two questions are called “name”'],
    ['nobody to write to', form(question('about')), 'no question fills a name or an e-mail: nobody could be written to'],
    [
      'one option',
      form(question('n', { fills: 'person.name' }), question('c', { kind: 'choice', options: ['a'] })),
      'a choice needs at least two options',
    ],
    [
      'looking ahead',
      form(question('n', { fills: 'person.name', when: 'later = 1' }), question('later')),
      'the condition speaks of “later”, which no question above asks',
    ],
    ['no condition', form(question('n', { fills: 'person.name' }), question('c', { when: 'n =' })), 'the condition cannot be read: '],
    [
      'one field twice',
      form(question('n', { fills: 'person.name' }), question('m', { fills: 'person.name' })),
      'another question fills person.name already',
    ],
  ])('%s', (_name, made, says) => {
    expect(
      checkForm(made, DEMO_FIELDS)
        .map((problem) => problem.says)
        .join('|'),
    ).toContain(says);
  });
});

describe('answers', () => {
  test.each([
    [{ kind: 'number', unit: 'ha' }, '12 000 m²', { value: 1.2 }],
    [{ kind: 'number' }, 'lots', { says: '“lots” is not a number' }],
    [{ kind: 'e-mail' }, 'Mara@Oakmere.example ', { value: 'mara@oakmere.example' }],
    [{ kind: 'e-mail' }, 'mara', { says: '“mara” is not an e-mail address' }],
    [{ kind: 'choice', options: ['a', 'b'] }, 'c', { says: 'please choose one of the answers' }],
    [{ kind: 'consent', required: true }, '', { says: 'please agree to go on' }],
    [{ kind: 'text', required: true }, '  ', { says: 'please answer this' }],
    [{ kind: 'long text' }, ' a\n b ', { value: 'a\n b' }],
    [{ kind: 'text' }, 'x'.repeat(5001), { says: 'at most 5,000 characters' }],
  ] as const)('%j takes %j', (more, raw, expected) => {
    expect(readAnswer(question('q', more as Partial<FormQuestion>), raw)).toEqual(expected);
  });

  test('what an earlier answer does not call for is not asked, whatever is sent for it', () => {
    const sent = { name: 'Mara Quill', email: 'm@o.example', has: 'no', which: 'Tessel 4', agreed: 'yes' };
    expect(askedOf(enquiry, { has: 'no' }).map((entry) => entry.id)).not.toContain('which');
    const read = readEntry(enquiry, sent);
    expect(read.problems).toEqual([]);
    expect(read.answers).not.toHaveProperty('which');
    expect(readEntry(enquiry, { ...sent, has: 'yes', which: '' }).problems).toEqual([{ question: 'which', says: 'please answer this' }]);
  });

  test('a condition on a question that is itself not asked does not hold', () => {
    const chain = form(question('a', { fills: 'person.name' }), question('b', { when: 'a = "x"' }), question('c', { when: 'b = "y"' }));
    expect(askedOf(chain, { a: 'z', b: 'y' }).map((entry) => entry.id)).toEqual(['a']);
  });

  test('an entry becomes a record by the rules that lists have', () => {
    const { answers } = readEntry(enquiry, { name: 'QUILL, Mara', email: 'M@O.example', area: '4,2', agreed: 'yes' });
    const { cells, columns } = entryRow(enquiry, answers);
    expect(readRow(cells, columns, 'GB', DEMO_FIELDS).record).toEqual({
      person: { name: 'Mara Quill', first_name: 'Mara', last_name: 'Quill', email: 'm@o.example' },
      company: { heated_area: 4.2 },
      note: null,
      standing: NOWHERE,
    });
  });

  test('whatever is sent, every problem names a question of the form', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom('name', 'email', 'area', 'has', 'which', 'agreed', 'other'), fc.string()), (raw) => {
        for (const problem of readEntry(enquiry, raw).problems)
          expect(['name', 'email', 'area', 'has', 'which', 'agreed']).toContain(problem.question);
      }),
    );
  });
});

/** The heads of picture files, of which no more is looked at. */
function png(width: number, height: number): Uint8Array {
  const head = new DataView(new ArrayBuffer(24));
  head.setUint32(0, 0x89504e47);
  head.setUint32(16, width);
  head.setUint32(20, height);
  return new Uint8Array(head.buffer);
}
function jpeg(width: number, height: number): Uint8Array {
  const bytes = new Uint8Array(40);
  const head = new DataView(bytes.buffer);
  head.setUint16(0, 0xffd8);
  head.setUint16(2, 0xffe0);
  head.setUint16(4, 16);
  head.setUint16(20, 0xffc0);
  head.setUint16(25, height);
  head.setUint16(27, width);
  return bytes;
}

describe('files are told apart by what is in them', () => {
  test.each([
    ['a PDF', strToU8('%PDF-1.7 …'), 'pdf'],
    ['a Word file', zipSync({ 'word/document.xml': strToU8('<w/>') }), 'docx'],
    ['any other archive', zipSync({ 'x.exe': strToU8('MZ') }), undefined],
    ['text', strToU8('Hello,\nMara'), 'text'],
    ['a program', new Uint8Array([0x4d, 0x5a, 0x90, 0x00, 0x03]), undefined],
    ['nothing', new Uint8Array(), undefined],
    ['a page saved as PNG', png(1240, 1754), 'picture'],
    ['a page photographed as JPEG', jpeg(3024, 4032), 'picture'],
    ['a firm’s sign under a mail', png(320, 90), undefined],
    ['a portrait', jpeg(400, 400), undefined],
    ['a JPEG cut off in its head', jpeg(3024, 4032).subarray(0, 12), undefined],
  ])('%s', (_name, bytes, kind) => {
    expect(fileKind(bytes)).toBe(kind);
  });
});
