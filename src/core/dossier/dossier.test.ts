import type { Fact, FactDraft } from '../facts';
import { DEMO_FIELDS } from '../../testing/fields';
import { textBlocks } from '../formats';
import { dossierMarkdown, dossierSchema, makeDossier, type DossierDocument, type DossierInput } from './index';

const NOW = Date.parse('2026-11-24T10:00:00Z');
const fact = (field: string, value: Fact['value'], more: Partial<FactDraft> = {}): Fact => ({
  id: `${field} ${String(value)}`,
  record: { kind: 'company', id: 'c' },
  field,
  value,
  source: 'site',
  sourceRef: 'x.example',
  url: 'http://x.example/about',
  quote: `words about ${field}`,
  confidence: 0.9,
  observedAt: NOW,
  ...more,
});
const document = (source: DossierDocument['source'], title: string, text: string, published: string | null = null): DossierDocument => ({
  source,
  url: `http://${source}.example/${title.length}`,
  title,
  published: published === null ? null : Date.parse(published),
  blocks: textBlocks(text),
});

function dossier(facts: readonly Fact[], more: Partial<DossierInput> = {}) {
  return makeDossier({
    name: 'Oakmere Glass',
    person: null,
    place: 'Hessle, GB',
    status: 'prospect',
    fields: DEMO_FIELDS.all('company').map((field) => ({ field, facts: facts.filter((entry) => entry.field === field.key) })),
    asked: [
      { id: 'heated_area', wording: 'How large?', unit: 'ha' },
      { id: 'energy', wording: 'What do they heat with?', unit: null },
    ],
    about: [],
    documents: [],
    candidate: null,
    doNotContact: false,
    now: NOW,
    ...more,
  });
}
const lines = (made: ReturnType<typeof dossier>, id: string) => made.sections.find((section) => section.id === id)?.lines ?? [];

test('answers carry their words, place, day and what others say; what has no answer is said', () => {
  const made = dossier([fact('heated_area', 4.2), fact('heated_area', 3.8, { source: 'crm', confidence: 0.7 })]);
  expect(lines(made, 'asked')).toEqual([
    expect.objectContaining({
      label: 'How large?',
      text: '4.2 ha',
      quote: 'words about heated_area',
      url: 'http://x.example/about',
      others: ['3.8 ha (CRM)'],
    }),
  ]);
  expect(lines(made, 'unknown').map((line) => line.text)).toEqual(['What do they heat with?', 'Which is their web site?']);
  expect(lines(made, 'watch').map((line) => line.text)).toEqual(['Sources disagree: 4.2 ha was taken.']);
});

test('to talk about: only what a fact or a document says', () => {
  const made = dossier([fact('expansion', true), fact('controls', 'Tessel 4'), fact('controls_since', 2013), fact('energy', 'biomass')], {
    documents: [
      document('jobs', 'Climate technician', 'You look after the boilers.', '2026-10-20'),
      document('jobs', 'Cook', 'You cook.', '2026-10-20'),
      document('news', 'Oakmere breaks ground', 'Oakmere has begun work.', '2026-09-22'),
      document('news', 'Old prize', 'A prize.', '2024-09-22'),
    ],
  });
  expect(lines(made, 'talk').map((line) => line.text)).toEqual([
    'Tessel 4: 13 years old.',
    'They have announced that they grow.',
    'They heat with biomass.',
    'Climate technician',
    'Cook',
    'Oakmere breaks ground',
  ]);
  for (const line of lines(made, 'talk')) expect(line.source).not.toBeNull();
  expect(lines(made, 'news').map((line) => line.text)).toEqual(['Oakmere breaks ground', 'Old prize']);
});

test('to watch: a contract, new controls, bad news, a register that says otherwise, doubts', () => {
  const made = dossier([fact('service_contract', true), fact('controls_since', 2024), fact('main_crop', 'roses', { confidence: 0.5 })], {
    doNotContact: true,
    documents: [document('news', 'Fire at Oakmere', 'A fire.', '2026-10-30'), document('register', 'Oakmere', 'Status: in liquidation')],
  });
  expect(lines(made, 'watch').map((line) => line.text)).toEqual([
    'They have asked not to be written to.',
    'Their controls are of 2024: new.',
    'They are under a service contract already.',
    'Not sure: roses.',
    'Fire at Oakmere',
    'Status: in liquidation',
  ]);
});

test('people from the directory; of a person, what their own profile says', () => {
  const profile = document('directory', 'Mara Quill', 'head grower at Oakmere\nSpeaks at the winter meeting.');
  const made = dossier([], { person: { name: 'Mara Quill', role: 'head grower' }, documents: [profile] });
  expect(made).toMatchObject({ title: 'Mara Quill, Oakmere Glass', under: 'head grower · Hessle, GB · prospect' });
  expect(lines(made, 'people')).toEqual([expect.objectContaining({ label: 'Mara Quill', text: 'head grower at Oakmere' })]);
  expect(lines(made, 'talk').map((line) => line.text)).toEqual(['Speaks at the winter meeting.']);
});

test('their own words are sentences of their site, word for word', () => {
  const made = dossier([], {
    documents: [
      document(
        'site',
        'Oakmere Glass – About',
        'Oakmere Glass is a family nursery near Hessle.\nOur shop is open all day on Sundays.\nWe grow tomatoes on 4.2 ha of heated glass.',
      ),
    ],
  });
  expect(lines(made, 'do').map((line) => line.text)).toEqual([
    'Oakmere Glass is a family nursery near Hessle.',
    'We grow tomatoes on 4.2 ha of heated glass.',
  ]);
});

test('as Markdown nothing in a page becomes markup', () => {
  const text = dossierMarkdown(dossier([fact('energy', 'biomass', { quote: '**bold** <script> [x](y)' })]));
  expect(text).toContain('# Oakmere Glass');
  expect(text).toContain('“\\*\\*bold\\*\\* \\<script\\> \\[x\\]\\(y\\)”');
  expect(text).toContain('<http://x.example/about>');
});

test('nothing known makes a dossier of questions, and every dossier can be kept', () => {
  const made = dossier([]);
  expect(made.sections.map((section) => section.id)).toEqual(['unknown']);
  expect(dossierSchema.parse(JSON.parse(JSON.stringify(made)))).toEqual(made);
});
