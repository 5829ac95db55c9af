/** The writing of a Word document (ECMA-376, WordprocessingML) with what a reader of it sees and does not see. */
import { load, type CheerioAPI } from 'cheerio';
import { isTag, isText, type Element } from 'domhandler';
import { unzipSync } from 'fflate';
import type { Block } from '../../core/formats';
import type { HiddenText } from '../ports';
import { contrast } from './pdf';

const PART = /^word\/(?:document|styles|header\d*|footer\d*)\.xml$/;
/** Half points: letters lower than 3.5 points cannot be read. */
const TINY = 7;
const FAINT = 1.25;

interface Look {
  readonly colour: string;
  readonly paper: string;
  readonly size: number;
  readonly hidden: boolean;
}
const PLAIN: Look = { colour: 'auto', paper: 'auto', size: 22, hidden: false };

interface Written {
  readonly blocks: readonly Block[];
  readonly hidden: readonly HiddenText[];
}

export function writingOf(bytes: Uint8Array): Written {
  const parts = unzipSync(bytes, { filter: ({ name }) => PART.test(name) });
  const text = (name: string): string => (parts[name] ? new TextDecoder().decode(parts[name]) : '');
  const writing = new Writing(text('word/styles.xml'));
  // Heads are read before and feet behind what stands between them; each is said once.
  for (const name of Object.keys(parts)
    .filter((part) => part.includes('header'))
    .sort())
    writing.read(text(name));
  writing.read(text('word/document.xml'));
  for (const name of Object.keys(parts)
    .filter((part) => part.includes('footer'))
    .sort())
    writing.read(text(name));
  return writing.done();
}

const child = (node: Element, name: string): Element | undefined =>
  node.children.find((entry): entry is Element => isTag(entry) && entry.name === name);
const children = (node: Element): readonly Element[] => node.children.filter((entry): entry is Element => isTag(entry));
const value = (node: Element | undefined): string | undefined => node?.attribs['w:val'];
/** `<w:vanish/>` is on, `<w:vanish w:val="0"/>` is off. */
const isOn = (node: Element | undefined): boolean => node !== undefined && !/^(?:0|false|off)$/.test(value(node) ?? '');

class Writing {
  private readonly blocks: Block[] = [];
  private readonly hidden: HiddenText[] = [];
  private readonly styles = new Map<
    string,
    { readonly name: string; readonly look: Element | undefined; readonly on: string | undefined }
  >();
  private readonly base: Look;
  private under = '';

  constructor(styles: string) {
    const $ = load(styles, { xml: true });
    for (const style of $('w\\:style').toArray())
      this.styles.set(style.attribs['w:styleId'] ?? '', {
        name: (value(child(style, 'w:name')) ?? '').toLowerCase(),
        look: child(style, 'w:rPr'),
        on: value(child(style, 'w:basedOn')),
      });
    this.base = withLook(PLAIN, $('w\\:docDefaults w\\:rPrDefault > w\\:rPr').get(0));
  }

  read(xml: string): void {
    const $: CheerioAPI = load(xml, { xml: true });
    const root = $.root().children().get(0);
    if (root) this.container(root);
  }

  done(): Written {
    return { blocks: this.blocks, hidden: this.hidden };
  }

  private container(node: Element): void {
    for (const entry of children(node))
      if (entry.name === 'w:p') this.put(this.paragraph(entry));
      else if (entry.name === 'w:tbl') this.table(entry);
      else if (/^w:(?:body|sdt|sdtContent|ins|moveTo|customXml|smartTag)$/.test(entry.name)) this.container(entry);
  }

  private table(node: Element): void {
    for (const row of children(node).filter((entry) => entry.name === 'w:tr')) {
      const cells = children(row)
        .filter((entry) => entry.name === 'w:tc')
        .map((cell) => this.cell(cell));
      // A row whose cells hold paragraphs is a way of setting columns beside one another: each is a text of its own.
      if (cells.some((cell) => cell.length > 2)) for (const block of cells.flat()) this.put(block);
      else {
        const text = cells.map((cell) => cell.map((block) => block.text).join(' ')).filter((said) => said !== '');
        if (text.length > 0) this.put({ kind: 'row', text: text.join('\t') });
      }
    }
  }

  private cell(node: Element): readonly Pick<Block, 'kind' | 'text'>[] {
    return children(node).flatMap((entry): readonly Pick<Block, 'kind' | 'text'>[] => {
      if (entry.name === 'w:p') return [this.paragraph(entry)].filter(({ text }) => text !== '');
      return /^w:(?:tbl|tr|tc|sdt|sdtContent|ins)$/.test(entry.name) ? this.cell(entry) : [];
    });
  }

  private paragraph(node: Element): Pick<Block, 'kind' | 'text'> {
    const props = child(node, 'w:pPr');
    const style = value(props && child(props, 'w:pStyle')) ?? '';
    const look = withLook(this.styled(style, this.base), undefined);
    const lines: string[] = [''];
    let bold = true;
    const hiddenRuns: { text: string; why: string }[] = [];
    const run = (entry: Element): void => {
      const own = child(entry, 'w:rPr');
      const runStyle = value(own && child(own, 'w:rStyle'));
      const seen = withLook(runStyle === undefined ? look : this.styled(runStyle, look), own);
      const text = textOf(entry);
      const why = unseen(seen);
      if (why !== undefined) hiddenRuns.push({ text, why });
      else {
        lines[0] = `${lines[0] ?? ''}${text}`;
        if (text.trim() !== '' && !(own && isOn(child(own, 'w:b')))) bold = false;
      }
      // Text boxes hang on the run they stand beside; the copy for older programs says the same again.
      for (const box of boxesIn(entry)) this.container(box);
    };
    const walk = (entry: Element): void => {
      for (const inner of children(entry))
        if (inner.name === 'w:r') run(inner);
        else if (/^w:(?:del|moveFrom)$/.test(inner.name)) {
          const text = deleted(inner);
          if (text !== '') hiddenRuns.push({ text, why: 'struck out' });
        } else if (/^w:(?:hyperlink|ins|moveTo|smartTag|sdt|sdtContent|fldSimple|customXml)$/.test(inner.name)) walk(inner);
    };
    walk(node);
    for (const why of new Set(hiddenRuns.map((entry) => entry.why))) {
      const text = hiddenRuns
        .filter((entry) => entry.why === why)
        .map((entry) => entry.text)
        .join('')
        .trim();
      if (text !== '') this.hidden.push({ text, why });
    }
    const text = (lines[0] ?? '').replace(/[^\S\n\t]+/g, ' ').trim();
    const name = this.styles.get(style)?.name ?? '';
    const isHeading =
      /^(?:heading|title|überschrift|kop|titre|título)/.test(name) ||
      (bold && text.length > 0 && text.length < 60 && !/[.:]$/.test(text) && !text.includes('\n'));
    const isItem = (props !== undefined && child(props, 'w:numPr') !== undefined) || /list (?:bullet|number)/.test(name);
    return { kind: isHeading ? 'heading' : isItem ? 'item' : 'text', text };
  }

  private styled(id: string, look: Look, depth = 0): Look {
    const style = this.styles.get(id);
    if (!style || depth > 8) return look;
    return withLook(style.on === undefined ? look : this.styled(style.on, look, depth + 1), style.look);
  }

  private put(block: Pick<Block, 'kind' | 'text'>): void {
    for (const text of block.text.split('\n').map((line) => line.trim())) {
      if (text === '') continue;
      this.blocks.push({ kind: block.kind, text, under: this.under, date: null });
      if (block.kind === 'heading') this.under = text;
    }
  }
}

function withLook(look: Look, props: Element | undefined): Look {
  if (!props) return look;
  const colour = value(child(props, 'w:color'));
  const size = Number(value(child(props, 'w:sz')));
  const shade = child(props, 'w:shd')?.attribs['w:fill'];
  const vanish = child(props, 'w:vanish');
  return {
    colour: colour ?? look.colour,
    paper: shade ?? look.paper,
    size: Number.isFinite(size) && size > 0 ? size : look.size,
    hidden: vanish ? isOn(vanish) : look.hidden,
  };
}

const asColour = (hex: string, usual: string): string => (/^[\da-f]{6}$/i.test(hex) ? `#${hex}` : usual);

function unseen(look: Look): string | undefined {
  if (look.hidden) return 'marked as hidden';
  if (look.size < TINY) return 'in letters too small to read';
  return contrast(asColour(look.colour, '#000000'), asColour(look.paper, '#ffffff')) < FAINT ? 'in the colour of the paper' : undefined;
}

function textOf(run: Element): string {
  return children(run)
    .map((entry) => {
      if (entry.name === 'w:t') return plain(entry);
      if (entry.name === 'w:tab' || entry.name === 'w:ptab') return '\t';
      if (entry.name === 'w:br' || entry.name === 'w:cr') return '\n';
      if (entry.name === 'w:noBreakHyphen') return '-';
      return '';
    })
    .join('');
}
const plain = (node: Element): string => node.children.map((entry) => (isText(entry) ? entry.data : '')).join('');
const deleted = (node: Element): string =>
  children(node)
    .map((entry) => (entry.name === 'w:delText' || entry.name === 'w:t' ? plain(entry) : deleted(entry)))
    .join('')
    .trim();

function boxesIn(node: Element): readonly Element[] {
  return children(node).flatMap((entry) => {
    if (entry.name === 'mc:Fallback') return [];
    return entry.name === 'w:txbxContent' ? [entry] : /^w:(?:r|t)$/.test(entry.name) ? [] : boxesIn(entry);
  });
}
