/** No real page nests deeper; what does costs every reader of it the square of its depth. */
const DEEPEST = 120;
/** A longer tag keeps its name only: comparing each of its attributes with all others would be quadratic. */
const LONGEST_TAG = 4_000;
/** Elements that end by themselves where the next of their kind begins: open ones are no nesting. */
const SELF_ENDING = new Set(
  'p,li,dt,dd,tr,td,th,thead,tbody,tfoot,option,optgroup,colgroup,caption,a,br,hr,img,input,meta,link,area,base,col,embed,source,track,wbr'.split(
    ',',
  ),
);
/** Their contents are no tags. */
const RAW = new Set(['script', 'style', 'textarea', 'title', 'xmp', 'iframe', 'noembed', 'noframes', 'plaintext']);

/**
 * The same page without what costs more than its length to read: tags nested deeper than anybody writes them are left
 * out (their text stays), and overlong tags lose their attributes. A page within the limits comes back as it was. One pass.
 */
export function boundHtml(html: string): string {
  const open: string[] = [];
  const dropped = new Map<string, number>();
  const out: string[] = [];
  const head = /\/?[a-z][a-z0-9:-]{0,40}|!--/iy;
  let kept = 0;
  for (let at = html.indexOf('<'); at >= 0;) {
    head.lastIndex = at + 1;
    const word = head.exec(html)?.[0].toLowerCase();
    if (word === undefined) {
      at = html.indexOf('<', at + 1);
      continue;
    }
    const end = word === '!--' ? endOf(html, '-->', at + 4) : endOf(html, '>', at);
    const closes = word.startsWith('/');
    const name = closes ? word.slice(1) : word;
    let next = end;
    if (word === '!--') {
      // A comment stays.
    } else if (closes ? takeDropped(dropped, name) : open.length >= DEEPEST && !SELF_ENDING.has(name)) {
      if (!closes) dropped.set(name, (dropped.get(name) ?? 0) + 1);
      out.push(html.slice(kept, at), ' ');
      kept = end;
    } else {
      if (end - at > LONGEST_TAG) {
        out.push(html.slice(kept, at), `<${word}>`);
        kept = end;
      }
      if (closes) open.splice(Math.max(open.lastIndexOf(name), 0), open.includes(name) ? open.length : 0);
      else if (!SELF_ENDING.has(name)) {
        if (RAW.has(name)) next = rawEnd(html, name, end);
        else open.push(name);
      }
    }
    at = html.indexOf('<', next);
  }
  return kept === 0 ? html : `${out.join('')}${html.slice(kept)}`;
}

const endOf = (html: string, mark: string, from: number): number => {
  const found = html.indexOf(mark, from);
  return found < 0 ? html.length : found + mark.length;
};

/** The end tag of a dropped element is dropped with it. */
function takeDropped(dropped: Map<string, number>, name: string): boolean {
  const count = dropped.get(name) ?? 0;
  if (count === 0) return false;
  dropped.set(name, count - 1);
  return true;
}

/** Where the contents of a raw element end: at its own end tag, which the walk then meets; without one, they are the rest. */
function rawEnd(html: string, name: string, from: number): number {
  const end = new RegExp(`</${name}`, 'gi');
  end.lastIndex = from;
  return end.exec(html)?.index ?? html.length;
}
