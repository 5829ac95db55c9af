import fs from 'node:fs';
import { numberedLines, parseFlow } from '../syntax';
import { drawFlow } from './index';

describe('a flow as a picture', () => {
  test.each(fs.readdirSync('demo/flows'))('%s: a row for every line, balanced, the same each time', (file) => {
    const { tree } = parseFlow(fs.readFileSync(`demo/flows/${file}`, 'utf8'));
    const svg = drawFlow(tree);
    expect(svg).toBe(drawFlow(tree));
    expect(svg.match(/text-anchor="end"/g)).toHaveLength(numberedLines(tree.lines).length);
    for (const tag of ['text', 'tspan', 'svg', 'title']) expect(svg.split(`<${tag}`).length).toBe(svg.split(`</${tag}>`).length);
    expect(svg).not.toMatch(/<script|href=|url\(/);
  });

  test('text that looks like markup stays text', () => {
    const svg = drawFlow(parseFlow('flow "A <b> & c"\nabout person\n\ntake in from hand\nstop "<script>x</script>"\n').tree);
    expect(svg).toContain('A &lt;b&gt; &amp; c');
    expect(svg).not.toContain('<script');
  });

  test('an empty flow is an empty picture, not a broken one', () => {
    expect(drawFlow(parseFlow('').tree)).toMatch(/^<svg .*viewBox="0 0 \d+ \d+"/);
  });
});
