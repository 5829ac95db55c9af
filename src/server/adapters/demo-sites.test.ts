/** The built-in reader against the demo’s sites: the key below was made by reading the pages, not by running the reader. */
import fs from 'node:fs';
import path from 'node:path';
import { answerQuestion } from '../../core/reader';
import { readPage } from './web';

const NOW = Date.parse('2026-11-24T10:00:00Z');
const WEB = path.resolve(__dirname, '../../../demo/web');
const QUESTIONS = {
  area: { id: 'heated_area', type: { kind: 'number', unit: 'ha' }, wording: 'How large is the area under heated glass?' },
  controls: { id: 'controls', type: { kind: 'text' }, wording: 'Which climate computer do they use?' },
  since: { id: 'controls_since', type: { kind: 'year' }, wording: 'Since when do they have it?' },
  expansion: { id: 'expansion', type: { kind: 'yes/no' }, wording: 'Was an expansion announced in the last 18 months?' },
  allYear: { id: 'all_year', type: { kind: 'yes/no' }, wording: 'Do they grow all year?' },
} as const;

function passages(host: string) {
  const folder = path.join(WEB, host);
  return fs
    .readdirSync(folder)
    .filter((name) => name.endsWith('.html') && name !== 'privacy.html')
    .map((name) => {
      const page = readPage(`http://${host}/${name}`, 200, fs.readFileSync(path.join(folder, name), 'utf8'));
      return { url: page.url, text: page.text };
    });
}
const asked = (host: string) => {
  const pages = passages(host);
  return Object.values(QUESTIONS).map((question) => ({ pages, ...answerQuestion(question, pages, NOW) }));
};

test.each([
  ['oakmere-glass', 4.2, 'Tessel 4', 2013, true, true],
  ['bellwether-growers', 6.8, 'Tessel 3', 2010, true, true],
  ['ballyrowan-fruits', 3, null, null, false, true],
  ['polder-orchids', 6.1, 'Hortum 200', 2011, true, true],
  ['marlpit-nurseries', 2, 'Tessel 4', 2015, null, false],
  ['trask-and-sons', null, null, null, null, false],
  ['brookvale-research', 1.2, 'Tessel 5', 2022, null, true],
  ['kildwick-salads', 4.41, 'Tessel 3', 2009, null, true],
  ['molenwiek-gerbera', 5.9, 'Hortum 200', 2010, null, true],
  ['orchideen-marquardt', 2.4, 'Klimatek C2', 2007, true, true],
  ['serres-du-valmont', 3.6, 'Climavert 2', 2013, true, true],
  ['hoogland-paprika', 11.4, 'Hortum 200', 2009, true, true],
  ['nordlys-gartneri', 3.4, 'Fjordklima 1', 2008, null, true],
  ['norrskogen-plant', 2.2, null, null, null, true],
  ['langholm-cuttings', 2.5, 'Tessel 4', 2014, null, true],
  ['ogrody-jaworzno', 1.4, null, null, null, null],
  ['petersen-rosen', null, null, null, null, null],
])('%s', (name, ...key) => {
  expect(asked(`${name}.example`).map((answer) => answer.value)).toEqual(key);
});

test('every answer quotes its page word for word', () => {
  for (const host of fs.readdirSync(WEB))
    for (const { found, quote, url, pages } of asked(host))
      if (found) expect(pages.find((page) => page.url === url)?.text).toContain(quote);
});
