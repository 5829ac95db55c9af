import * as cheerio from 'cheerio';
import { cleanText, pieces, type Instant } from '../base';
import type { Block, PageText } from './block';
import { boundHtml } from './bounded';
import { linkedData, microdata } from './structured';

type Node = ReturnType<ReturnType<typeof cheerio.load>>[number];
type Page = ReturnType<typeof cheerio.load>;

const isTag = (node: Node): node is Extract<Node, { name: string }> => (node.type as string) === 'tag';
const isText = (node: Node): boolean => (node.type as string) === 'text';

const UNSEEN = 'script,style,noscript,template,svg,iframe,object,[hidden],[aria-hidden="true"],nav,form,select';
const HEADINGS = new Set(['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'caption', 'legend', 'summary']);
/** A block with other blocks inside is only their frame. */
const BLOCKS =
  'p,li,h1,h2,h3,h4,h5,h6,div,section,article,main,aside,header,footer,address,blockquote,figure,figcaption,table,tbody,thead,tr,td,th,ul,ol,dl,details,summary,fieldset,legend,center,pre';
const INVISIBLE =
  /display\s*:\s*none|visibility\s*:\s*hidden|font-size\s*:\s*0(?![.\d]*[1-9])|opacity:\s*0(?![.\d]*[1-9])|(?:left|top|text-indent|margin-left):\s*-\d{3,}|(?:max-)?(?:height|width):\s*[01](?:px)?\s*(?:;|$)|clip:\s*rect\(0|transform:\s*scale\(0/i;
const MAX_BLOCKS = 4_000;
const MAX_TEXT = 200_000;
const MAX_LINKS = 2_000;
/** Rules of a page's own style sheets that are looked at for what they hide. */
const HIDING_RULES = 200;

export interface Link {
  readonly url: string;
  readonly text: string;
  /** what the address holds is shown inside this page */
  readonly isFrame?: true;
}

/** A page as `readHtml` gives it, with its links as whole addresses. */
export function readPage(html: string, url: string): PageText & { readonly links: readonly Link[] } {
  const $ = cheerio.load(boundHtml(html));
  return { links: linksOf($, url), ...textOf($) };
}

function linksOf($: Page, url: string): readonly Link[] {
  return $('frame[src], iframe[src], a[href], area[href]')
    .toArray()
    .slice(0, MAX_LINKS)
    .flatMap((node) => {
      try {
        const isFrame = isTag(node) && /^i?frame$/.test(node.name);
        const link = new URL($(node).attr(isFrame ? 'src' : 'href') ?? '', url);
        link.hash = '';
        return link.protocol.startsWith('http')
          ? [
              {
                url: link.href,
                text: clean(isFrame ? ($(node).attr('title') ?? '') : $(node).text()).slice(0, 120),
                ...(isFrame ? { isFrame } : {}),
              },
            ]
          : [];
      } catch {
        return [];
      }
    });
}

/** The visible text of an HTML page in blocks, with what it says about itself. Never throws, whatever the bytes were. */
export function readHtml(html: string): PageText {
  return textOf(cheerio.load(boundHtml(html)));
}

function textOf($: Page): PageText {
  const data = [...linkedData($), ...microdata($)];
  const title = clean($('title').first().text()) || clean($('h1').first().text());
  const language = ($('html').attr('lang') ?? '').slice(0, 2).toLowerCase();
  const published = publishedOn($, data);
  removeUnseen($);
  const blocks: Block[] = [];
  walk({ $, framing: framing($), dated: $('time[datetime]').length > 0 }, $('body').toArray(), blocks, { under: '', date: null });
  for (const [label, value] of data) blocks.push({ kind: 'data', text: `${label}: ${value}`, under: '', date: null });
  return { title, language: /^[a-z]{2}$/.test(language) ? language : '', published, blocks: withinLimits(blocks) };
}

function withinLimits(blocks: readonly Block[]): readonly Block[] {
  let size = 0;
  return blocks.slice(0, MAX_BLOCKS).filter((block) => (size += block.text.length) <= MAX_TEXT);
}

/** Zero-width and direction characters can hide words between letters; they are no text. */
const clean = (text: string): string =>
  cleanText(text)
    .replace(/(?!\s)\p{Cc}/gu, '')
    .replace(/[\u200B-\u200F\u202A-\u202E\u2060-\u2064\uFEFF\u00AD]|[\u{E0000}-\u{E007F}]/gu, '')
    .replace(/\s+/g, ' ')
    .trim();

function removeUnseen($: Page): void {
  const hidden = hiddenSelectors($);
  $(UNSEEN).remove();
  $('[style]')
    .filter((_, node) => INVISIBLE.test($(node).attr('style') ?? '') || sameColours($(node).attr('style') ?? ''))
    .remove();
  for (const selector of hidden) {
    try {
      $(selector).remove();
    } catch {
      /* a selector this library does not know hides nothing here */
    }
  }
}

/** Simple rules of the page's own style sheets that take something out of sight. */
function hiddenSelectors($: Page): readonly string[] {
  const css = $('style').text().slice(0, 100_000);
  return [...css.matchAll(/(?<![^{}@])([^{}@]+)\{([^{}]*)\}/g)]
    .flatMap(([, selectors = '', rules = '']) =>
      INVISIBLE.test(rules) || sameColours(rules)
        ? selectors
            .split(',')
            .map((selector) => selector.trim())
            .filter((selector) => /^[.#]?[a-z][\w-]*(?:[ .#]+[\w-]+)*$/i.test(selector) && !/^(?:html|body|main)$/i.test(selector))
        : [],
    )
    .slice(0, HIDING_RULES);
}

/** White on white: the colour of the letters is that of the ground. */
function sameColours(style: string): boolean {
  const ink = /(?:^|[;\s])color:\s*([^;]+)/i.exec(style)?.[1];
  const ground = /background(?:-color)?:\s*([^;]+)/i.exec(style)?.[1];
  return ink !== undefined && colour(ink) === (ground === undefined ? '#ffffff' : colour(ground));
}
function colour(text: string): string {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/\s{0,20}!important/, '');
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/.exec(plain);
  if (short)
    return `#${short
      .slice(1)
      .map((digit) => digit + digit)
      .join('')}`;
  if (plain === 'white' || /^rgba?\(\s*255,\s*255,\s*255/.test(plain)) return '#ffffff';
  return plain;
}

/** A page being read, with what is asked of every element looked up once. */
interface Reading {
  readonly $: Page;
  /** elements with blocks inside: they are only frames */
  readonly framing: ReadonlySet<unknown>;
  /** whether any day is marked on the page at all */
  readonly dated: boolean;
}

/** All elements above blocks, each marked once. */
function framing($: Page): ReadonlySet<unknown> {
  const found = new Set<unknown>();
  for (const block of $(BLOCKS).toArray()) for (let up = block.parent; up !== null && !found.has(up); up = up.parent) found.add(up);
  return found;
}

interface Where {
  readonly under: string;
  readonly date: Instant | null;
}

/** Depth first; gives the heading that now stands above. */
function walk(page: Reading, nodes: readonly Node[], out: Block[], where: Where): Where {
  const { $ } = page;
  let at = where;
  for (const node of nodes) {
    if (!isTag(node) || out.length > MAX_BLOCKS) continue;
    const element = $(node);
    const name = node.name.toLowerCase();
    if (HEADINGS.has(name)) {
      const text = clean(element.text());
      if (text === '') continue;
      at = { under: text, date: dateOf(page, node) ?? (name === 'h1' ? null : at.date) };
      out.push({ kind: 'heading', text, under: '', date: at.date });
    } else if (name === 'table' && holdsData($, node)) rows($, node, out, at);
    else if (name === 'dl') terms($, node, out, at);
    else if (card(page, node, out, at)) continue;
    else if (page.framing.has(node)) {
      const inner = ['article', 'section', 'li', 'tr'].includes(name) ? { ...at, date: dateOf(page, node) ?? at.date } : at;
      loose(page, node, out, inner);
      const after = walk(page, element.children().toArray(), out, inner);
      if (!['article', 'aside', 'footer', 'section'].includes(name)) at = { ...after, date: at.date ?? after.date };
    } else lines(page, node, name === 'li' ? 'item' : 'text', out, at);
  }
  return at;
}

const CARD_LABEL = 90;
/** A figure with at most a short unit: `12`, `38.5 t`, `€ 245`, `2016`. */
const CARD_FIGURE = /^(?:[^\p{L}\d]{0,3}|[A-Z]{3} ?)\d[\d.,\s’']{0,12}(?:[^\s\d]{0,4})?$/u;

/** Two or three elements side by side, of which one is a figure and another says of what: a row. Whether it was one. */
function card({ $, framing: frames }: Reading, node: Node, out: Block[], at: Where): boolean {
  const parts = $(node).children().toArray();
  if (parts.length < 2 || parts.length > 3 || !/^(?:div|li|span|a|section|article|figure|p)$/.test((node as { name?: string }).name ?? ''))
    return false;
  if (
    parts.some(
      (part) =>
        frames.has(part) ||
        (isTag(part) && (HEADINGS.has(part.name) || /^(?:ul|ol|table|dl|img)$/.test(part.name) || $(part).children().length > 1)),
    )
  )
    return false;
  if (
    clean(
      $(node)
        .contents()
        .filter((_, child) => isText(child))
        .text(),
    ) !== ''
  )
    return false;
  const texts = parts.map((part) => clean($(part).text())).filter((text) => text !== '');
  const figures = texts.filter((text) => CARD_FIGURE.test(text));
  const labels = texts.filter((text) => !CARD_FIGURE.test(text));
  const [figure] = figures;
  if (figure === undefined || figures.length !== 1 || labels.length === 0 || labels.join(' ').length > CARD_LABEL) return false;
  // “of which 11 ponies” below a figure is read with it, not in its place.
  push('row', `${labels.join(', ').replace(/:$/, '')}: ${figure}`, out, at);
  return true;
}

/** Where a page begins a new line; the ends of lines in its source are mere spaces. */
const BREAK = '\u2028';

/** The text of an element; elements side by side that nothing parts are words apart. */
const textIn = ($: Page, node: Node, kept = false): string => spelt($, $(node).contents().toArray(), kept);

/** `kept`: within `pre`, where the ends of lines of the source are those of the page. */
function spelt($: Page, nodes: readonly Node[], kept = false): string {
  return nodes
    .map((child) => {
      if (isText(child))
        return $(child)
          .text()
          .replace(kept ? /\r?\n/g : /\s/g, kept ? BREAK : ' ');
      if (!isTag(child)) return '';
      if (child.name === 'br') return BREAK;
      const text = textIn($, child, kept || child.name === 'pre');
      return APART.has(child.name) ? ` ${text} ` : text;
    })
    .join('');
}
/** Inline elements that pages put side by side as parts of their own. */
const APART = new Set(['span', 'label', 'button', 'a', 'time', 'td', 'th']);

/** Text that stands beside blocks inside the same frame. */
function loose({ $, framing: frames }: Reading, node: Node, out: Block[], at: Where): void {
  const own = $(node)
    .contents()
    .filter((_, child) => isText(child) || (isTag(child) && !$(child).is(BLOCKS) && !frames.has(child)))
    .toArray();
  for (const line of spelt($, own, (node as { name?: string }).name === 'pre').split(BREAK)) push('text', line, out, at);
}

function lines(page: Reading, node: Node, kind: 'text' | 'item', out: Block[], at: Where): void {
  const marked = { ...at, date: dateOf(page, node) ?? at.date };
  for (const line of textIn(page.$, node, isTag(node) && node.name === 'pre').split(BREAK))
    push(kind, line.replace(/ (?=[.,;:!?)])/g, ''), out, marked);
}

function push(kind: Block['kind'], text: string, out: Block[], at: Where): void {
  for (const plain of pieces(clean(text))) if (plain !== '') out.push({ kind, text: plain, under: at.under, date: at.date });
}

const LONGEST_CELL = 140;
const FRAMES = 'table,h1,h2,h3,h4,ul,ol,dl,div div,section,article,p + p';

/** A table of values; one that only lays out the page has headings, lists or whole paragraphs in its cells. */
function holdsData($: Page, table: Node): boolean {
  const cells = $(table).find('td,th').toArray();
  return (
    $(table).find(FRAMES).length === 0 && cells.every((cell) => $(cell).text().length <= LONGEST_CELL && $(cell).find('br').length < 3)
  );
}

/** A table as “label: value” rows: by its header row when it has one, else by the first cell of each row. */
function rows($: Page, table: Node, out: Block[], at: Where): void {
  const caption = clean($(table).find('caption').first().text());
  const under = caption === '' ? at : { ...at, under: caption };
  const all = $(table)
    .find('tr')
    .toArray()
    .map((row) => $(row).children('td,th').toArray());
  const [first] = all;
  const headed = first !== undefined && all.length > 1 && first.length > 2 && first.every((cell) => isTag(cell) && cell.name === 'th');
  const heads = headed ? first.map((cell) => clean($(cell).text())) : [];
  for (const row of headed ? all.slice(1) : all) {
    const cells = row.map((cell) => clean($(cell).text()));
    const [label = '', ...rest] = cells;
    if (headed) push('row', `${label}: ${rest.map((cell, i) => [heads[i + 1], cell].filter(Boolean).join(' ')).join(', ')}`, out, under);
    else push('row', rest.length === 0 ? label : `${label.replace(/:$/, '')}: ${rest.join(', ')}`, out, under);
  }
}

function terms($: Page, list: Node, out: Block[], at: Where): void {
  let label = '';
  for (const child of $(list).find('dt,dd').toArray()) {
    if (!isTag(child)) continue;
    const text = clean($(child).text());
    if (child.name === 'dt') label = text.replace(/:$/, '');
    else push('row', label === '' ? text : `${label}: ${text}`, out, at);
  }
}

/** The day of a `time` element inside, when there is one and only one. */
function dateOf({ $, dated }: Reading, node: Node): Instant | null {
  if (!dated) return null;
  const times = $(node).find('time[datetime]');
  if (times.length === 0 || ($(node).is('section,div') && times.length > 1)) return null;
  return instant(times.first().attr('datetime') ?? '');
}

function publishedOn($: Page, data: readonly (readonly [string, string])[]): Instant | null {
  const meta = $('meta[property="article:published_time"],meta[name="date"],meta[itemprop="datePublished"],meta[name="dcterms.date"]')
    .first()
    .attr('content');
  const stated = meta ?? data.find(([label]) => label === 'date published')?.[1];
  return stated === undefined ? null : instant(stated);
}

function instant(text: string): Instant | null {
  if (!/^\d{4}-\d{2}(?:-\d{2})?/.test(text)) return null;
  const at = Date.parse(text.length === 7 ? `${text}-15` : text.slice(0, 10));
  return Number.isNaN(at) ? null : at;
}
