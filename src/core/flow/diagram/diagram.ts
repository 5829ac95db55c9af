import { STANDARD, type Catalogue } from '../../fields';
import { sayArm, sayLine, type Part } from '../say';
import { armsOf, verbOf, type FlowTree, type Line } from '../syntax';

const ROW = 30;
const TOP = 64;
const LEFT = 28;
/** how far an arm lies to the right of what it leaves, and how wide a channel is */
const STEP = 26;
const CHANNEL = 12;
/** an upper guess of a character's width: the reader's font is not known */
const CHAR = 8;
const LANE = 3;
const WATER = '#8fbfc5';
const INK = '#1b2624';
const QUIET = '#5c6b67';
const RIVER = '#1f5f6b';

interface Row {
  readonly y: number;
  readonly depth: number;
  readonly number: number | undefined;
  readonly parts: readonly Part[];
  readonly off: boolean;
}

interface Drawing {
  readonly rows: Row[];
  readonly channels: string[];
  deepest: number;
}

const xOf = (depth: number): number => LEFT + depth * STEP;
/** A channel from one place to another below it; where they lie side by side it bends. */
function channel(fromDepth: number, fromY: number, toDepth: number, toY: number): string {
  const [x0, x1] = [xOf(fromDepth), xOf(toDepth)];
  const path =
    x0 === x1 ? `M${x0} ${fromY}V${toY + 0.5}` : `M${x0} ${fromY}C${x0} ${fromY + ROW * 0.6} ${x1} ${toY - ROW * 0.6} ${x1} ${toY}`;
  return `<path d="${path}" fill="none" stroke="${WATER}" stroke-width="${CHANNEL}" stroke-linecap="butt"/>`;
}

/** The thin way back from an arm's end to what stands below the split, beside the channel that goes on to the next arms. */
function lane(from: { readonly depth: number; readonly y: number }, depth: number, end: number): string {
  const [x0, x1, x2] = [xOf(from.depth), xOf(depth) + STEP / 2, xOf(depth)];
  const bend = ROW * 0.3;
  const path = `M${x0} ${from.y}Q${x0} ${from.y + bend} ${x1} ${from.y + bend}V${Math.max(end, from.y + bend)}Q${x1} ${end + bend} ${x2} ${end + bend * 1.4}`;
  return `<path d="${path}" fill="none" stroke="${WATER}" stroke-width="${LANE}"/>`;
}

/** The whole flow as an SVG document. */
export function drawFlow(tree: FlowTree, fields: Catalogue = STANDARD): string {
  const drawing: Drawing = { rows: [], channels: [], deepest: 0 };
  drawLines(tree.lines, 0, { fields, drawing, number: 0 });
  const { rows, channels } = drawing;
  const textX = xOf(drawing.deepest) + 44;
  const widest = Math.max(...rows.map((row) => lengthOf(row)), (tree.name?.text.length ?? 0) * 1.6, 20);
  const width = Math.ceil(textX + widest * CHAR + 24);
  const height = TOP + rows.length * ROW + 16;
  const about = tree.about ? `about ${tree.about.text}` : '';
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" role="img" font-family="'Source Sans 3', 'Source Sans Pro', Arial, sans-serif">`,
    `<title>${escape(tree.name?.text ?? 'A flow')}</title>`,
    `<rect width="${width}" height="${height}" fill="#ffffff"/>`,
    `<text x="20" y="30" font-size="19" font-weight="600" fill="${INK}">${escape(tree.name?.text ?? '')}</text>`,
    `<text x="20" y="49" font-size="13" fill="${QUIET}">${escape(about)}</text>`,
    ...channels,
    ...rows.map((row) => drawRow(row, textX)),
    '</svg>',
    '',
  ].join('\n');
}

interface Place {
  readonly fields: Catalogue;
  readonly drawing: Drawing;
  number: number;
}

/** Draws lines one below the other; says whether the trip goes on after the last one. */
function drawLines(lines: readonly Line[], depth: number, place: Place): boolean {
  const { drawing } = place;
  drawing.deepest = Math.max(drawing.deepest, depth);
  let open = true;
  for (const line of lines) {
    place.number += 1;
    const y = nextY(drawing);
    drawing.rows.push({ y, depth, number: place.number, parts: sayLine(line, place.fields), off: line.off });
    const ends = verbOf(line.step).ends === true;
    drawing.channels.push(channel(depth, y, depth, y + (ends ? ROW / 2 : ROW)));
    open = line.off || !ends;
    const arms = armsOf(line);
    if (arms.length === 0) continue;
    const splitEnd = y + ROW;
    let armTop = splitEnd;
    const back: { readonly depth: number; readonly y: number }[] = [];
    for (const arm of arms) {
      const armY = nextY(drawing);
      armTop = armY;
      drawing.deepest = Math.max(drawing.deepest, depth + 1);
      drawing.rows.push({ y: armY, depth: depth + 1, number: undefined, parts: sayArm(arm, place.fields), off: false });
      drawing.channels.push(channel(depth, splitEnd, depth, armY), channel(depth, armY - ROW * 0.2, depth + 1, armY + ROW));
      if (drawLines(arm.lines, depth + 1, place)) back.push({ depth: depth + 1, y: nextY(drawing) });
    }
    const end = nextY(drawing);
    const last = arms.at(-1);
    if (last?.when) drawing.channels.push(channel(depth, armTop, depth, end));
    for (const from of back) drawing.channels.push(lane(from, depth, end));
    open = line.off || back.length > 0 || last?.when !== undefined;
  }
  return open;
}

const nextY = (drawing: Drawing): number => TOP + drawing.rows.length * ROW;
const lengthOf = (row: Row): number => row.parts.reduce((sum, part) => sum + part.text.length + 1, 0);

function drawRow(row: Row, textX: number): string {
  const y = row.y + ROW * 0.63;
  const said = row.parts
    .map((part) => {
      const look =
        part.role === 'verb'
          ? `font-weight="700" fill="${INK}"`
          : part.role === 'clause'
            ? `font-style="italic" fill="${QUIET}"`
            : part.role === 'value'
              ? `font-weight="600" fill="${RIVER}"`
              : `fill="${INK}"`;
      return `<tspan ${look}>${escape(part.text)}</tspan>`;
    })
    .join(' ')
    .replace(/ (<tspan [^>]*>)(?=,)/g, '$1');
  const indent = row.depth * 18;
  const off = row.off ? ' text-decoration="line-through" opacity="0.55"' : '';
  return [
    row.number === undefined
      ? ''
      : `<text x="${textX - 12}" y="${y}" font-size="12" text-anchor="end" fill="${QUIET}">${row.number}</text>`,
    `<text x="${textX + indent}" y="${y}" font-size="14"${off} xml:space="preserve">${said}</text>`,
  ].join('');
}

const escape = (text: string): string =>
  text.replace(/[&<>"]/g, (char) => `&${{ '&': 'amp', '<': 'lt', '>': 'gt', '"': 'quot' }[char] ?? ''};`);
