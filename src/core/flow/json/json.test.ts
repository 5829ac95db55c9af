import fs from 'node:fs';
import { z } from 'zod';
import { numberedLines, parseFlow } from '../syntax';
import { flowJson, flowJsonSchema } from './index';

const docs = fs.readFileSync('docs/flow-text.md', 'utf8');
const examples = [...docs.matchAll(/```race[^\n]*\n([\s\S]*?)```/g)].map((match) => match[1] ?? '');
const shipped = fs.readdirSync('demo/flows').map((file) => fs.readFileSync(`demo/flows/${file}`, 'utf8'));

describe('a flow as JSON', () => {
  test.each([...examples, ...shipped].map((text) => [text.split('\n')[0] ?? '', text]))('fits the published schema: %s', (_first, text) => {
    const { tree } = parseFlow(text);
    const json = flowJson(tree);
    expect(flowJsonSchema.parse(JSON.parse(JSON.stringify(json)))).toEqual(json);
    const marks = (lines: readonly { readonly mark: string; readonly step: any }[]): string[] =>
      lines.flatMap((line) => [line.mark, ...(line.step.arms ?? []).flatMap((arm: any) => marks(arm.lines))]);
    expect(marks(json.lines)).toEqual(numberedLines(tree.lines).map(({ line }) => line.mark));
    expect(JSON.stringify(json)).not.toMatch(/"(?:from|to)":\d/);
  });

  test('expressions, lengths, times and names are written as in the text', () => {
    const json = flowJson(
      parseFlow(
        'flow "J"\nabout person\n\ntake in from hand\nkeep when email != null\nwait until 09:05 on a working day\nwrite email "First contact" as opener\nwait for reply to opener, at most 8 days as answer\nhand over to "Yard board"\n',
      ).tree,
    );
    expect(json.lines.map((line) => line.step)).toEqual([
      { verb: 'take in', from: 'hand' },
      { verb: 'keep', when: 'email != null' },
      { verb: 'wait', for: { kind: 'clock', time: '09:05', workingDay: true, readerTime: false } },
      { verb: 'write', channel: 'email', template: 'First contact', as: 'opener' },
      { verb: 'wait', for: { kind: 'reply', message: 'opener', atMost: '8 days' }, as: 'answer' },
      { verb: 'hand over', to: 'Yard board' },
    ]);
  });

  test('the schema is a JSON Schema in which an arm holds lines again', () => {
    const schema = z.toJSONSchema(flowJsonSchema);
    expect(schema.$schema).toContain('json-schema.org');
    expect(JSON.stringify(schema)).toContain('"$ref"');
  });
});
