import fc from 'fast-check';
import { readHtml, readPage, textBlocks } from './index';

const texts = (html: string) => readHtml(html).blocks.map((block) => `${block.kind} ${block.text}`);

describe('blocks of a page', () => {
  test('paragraphs, items and headings apart; the heading stands over what follows it', () => {
    const { blocks } = readHtml('<h2>Glass</h2><p>4.2 ha <b>heated</b></p><ul><li>Tomatoes</li></ul>');
    expect(blocks).toEqual([
      { kind: 'heading', text: 'Glass', under: '', date: null },
      { kind: 'text', text: '4.2 ha heated', under: 'Glass', date: null },
      { kind: 'item', text: 'Tomatoes', under: 'Glass', date: null },
    ]);
  });

  test('rows of tables and lists of terms are labelled values; a table that lays out the page is not', () => {
    expect(texts('<table><tr><th>Area</th><td>4 ha</td></tr></table><dl><dt>Crop:</dt><dd>roses</dd></dl>')).toEqual([
      'row Area: 4 ha',
      'row Crop: roses',
    ]);
    expect(texts('<table><tr><th>House</th><th>Crop</th><th>Area</th></tr><tr><td>1</td><td>roses</td><td>2 ha</td></tr></table>')).toEqual(
      ['row 1: Crop roses, Area 2 ha'],
    );
    expect(texts('<table><tr><td><h1>Hello</h1><p>Text</p></td></tr></table>')).toEqual(['heading Hello', 'text Text']);
  });

  test('loose text beside blocks, and lines parted by breaks', () => {
    expect(texts('<div>One<br>two<p>three</p></div>')).toEqual(['text One', 'text two', 'text three']);
    expect(texts('<p>One<br>two</p>')).toEqual(['text One', 'text two']);
  });

  test('a time element dates its article, and a page says of what day it is', () => {
    const page = readHtml(
      '<meta property="article:published_time" content="2026-03-01T10:00:00Z"><article><h3>New</h3><time datetime="2026-02-01">1 Feb</time><p>Glass</p></article><p>Other</p>',
    );
    expect(page.published).toBe(Date.parse('2026-03-01'));
    expect(page.blocks.find((block) => block.text === 'Glass')?.date).toBe(Date.parse('2026-02-01'));
    expect(page.blocks.find((block) => block.text === 'Other')?.date).toBeNull();
  });

  test('what a page says to machines is read as labelled values; half a document is left out', () => {
    const data = JSON.stringify({
      '@type': 'Organization',
      numberOfEmployees: { '@type': 'QuantitativeValue', value: 38 },
      employee: { name: 'Mara Quill', jobTitle: 'Owner' },
      additionalProperty: [{ name: 'heated glass', value: '4.2', unitCode: 'HAR' }],
    });
    expect(texts(`<script type="application/ld+json">${data}</script><script type="application/ld+json">{"a":</script>`)).toEqual([
      'data number of employees: 38',
      'data owner: Mara Quill',
      'data heated glass: 4.2 ha',
    ]);
    expect(texts('<div itemscope><span itemprop="foundingDate" content="1961">sixties</span></div>')).toContain('data founding date: 1961');
  });
});

describe('what a visitor cannot see is no text', () => {
  test.each([
    '<p style="display:none">secret</p>',
    '<p style="font-size:0">secret</p>',
    '<p style="color:#fff;background:#ffffff">secret</p>',
    '<p style="color: white">secret</p>',
    '<p style="position:absolute;left:-9999px">secret</p>',
    '<p style="opacity: 0;">secret</p>',
    '<style>.x, .y { display : none }</style><p class="x">secret</p>',
    '<style>#z{visibility:hidden}</style><p id="z">secret</p>',
    '<p hidden>secret</p><p aria-hidden="true">secret</p><template><p>secret</p></template><noscript>secret</noscript>',
    '<!-- secret --><script>secret()</script><form><input value="secret"><label>secret</label></form>',
  ])('%s', (html) => {
    expect(JSON.stringify(readHtml(`${html}<p>open</p>`).blocks)).toBe(
      JSON.stringify([{ kind: 'text', text: 'open', under: '', date: null }]),
    );
  });

  test('half-seen styles hide nothing', () => {
    expect(texts('<p style="opacity:0.5;font-size:0.9em">seen</p>')).toEqual(['text seen']);
  });

  test('letters that hide between letters are dropped', () => {
    expect(texts('<p>4\u200b.2 \u202eha\u00ad\u{E0041}</p>')).toEqual(['text 4.2 ha']);
  });
});

test('anything at all gives blocks without line breaks and never throws', () => {
  const piece = fc.constantFrom(
    '<p>',
    '</p>',
    '<table>',
    '<tr>',
    '<td>',
    '<div',
    ' style="',
    '"',
    '>',
    '<h1>',
    'ha',
    '<br>',
    '</div>',
    '<li>',
    '\u0000',
    '<script>',
  );
  fc.assert(
    fc.property(fc.array(fc.oneof(piece, fc.string()), { maxLength: 30 }), (parts) => {
      for (const block of readHtml(parts.join('')).blocks) expect(block.text).not.toMatch(/[\n\u0000]/);
    }),
  );
});

test('plain text is a block a line', () => {
  expect(textBlocks(' a  b \n\n c').map((block) => block.text)).toEqual(['a b', 'c']);
});

test('the ends of lines of the source are spaces, those within pre are kept', () => {
  const texts = readHtml('<p>one\n two<br>three</p><div>four\n five<p>six</p></div><pre>seven\neight</pre>').blocks.map(
    (block) => block.text,
  );
  expect(texts).toEqual(['one two', 'three', 'four five', 'six', 'seven', 'eight']);
});

test('a page made of frames leads to what they show', () => {
  const { links } = readPage(
    '<frameset cols="20%,80%"><frame src="menu.html"><frame src="/main.html" title="Our firm"></frameset>',
    'http://a.example/',
  );
  expect(links).toEqual([
    { url: 'http://a.example/menu.html', text: '', isFrame: true },
    { url: 'http://a.example/main.html', text: 'Our firm', isFrame: true },
  ]);
});
