/** Two people on one draft, in any order of typing, saving and hearing of each other: both end with one text, nothing lost. */
import fc from 'fast-check';
import { keepMarks } from '../../../core/flow/edit';
import { numberedLines, parseFlow, printFlow } from '../../../core/flow/syntax';
import { editorReducer, openEditor, type EditorAction, type EditorState } from './editor';

const START = printFlow(
  parseFlow(`flow "Two"\nabout person\n\ntake in from hand\n${Array.from({ length: 6 }, (_, i) => `note "line ${i}"`).join('\n')}\n`).tree,
  { marks: true },
);

/** The server as the use case is: a draft is only taken on the number it was begun on. */
class Server {
  text = START;
  no = 1;
  save(base: number, typed: string): { readonly ok: boolean } {
    if (base !== this.no) return { ok: false };
    this.text = keepMarks(this.text, typed);
    this.no += 1;
    return { ok: true };
  }
}

class Client {
  state: EditorState;
  constructor(
    private readonly server: Server,
    readonly name: string,
  ) {
    this.state = openEditor(server.text, server.no);
  }
  send(action: EditorAction): void {
    this.state = editorReducer(this.state, action);
  }
  type(line: number, words: string): void {
    const rows = this.state.text.split('\n');
    const at = rows.findIndex((row) => row.includes(`line ${line}`));
    rows[at] = (rows[at] ?? '').replace(/"[^"]*"/, `"line ${line} ${words}"`);
    this.send({ kind: 'change', text: rows.join('\n') });
  }
  add(words: string): void {
    this.send({ kind: 'change', text: printFlow(parseFlow(`${this.state.text.trimEnd()}\nnote "${words}"\n`).tree, { marks: true }) });
  }
  hear(): void {
    this.send({ kind: 'theirs', text: this.server.text, base: this.server.no, name: 'the other' });
  }
  save(): void {
    if (this.state.save !== 'changed') return;
    const sent = this.state.text;
    this.send({ kind: 'saving' });
    if (this.server.save(this.state.base, sent).ok) this.send({ kind: 'saved', sent, text: this.server.text, base: this.server.no });
    else this.hear();
  }
}

const step = fc.record({
  who: fc.constantFrom(0, 1),
  does: fc.constantFrom('type', 'add', 'save', 'save', 'hear'),
  line: fc.nat({ max: 2 }),
});

test('whatever they do in lines of their own, both end with the same text and with everything they typed', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
      const server = new Server();
      const clients = [new Client(server, 'a'), new Client(server, 'b')] as const;
      const last = new Map<string, string>();
      const added: string[] = [];
      steps.forEach(({ who, does, line }, n) => {
        const client = clients[who === 0 ? 0 : 1];
        if (does === 'type') {
          // Each keeps to three lines of their own.
          const own = line * 2 + who;
          client.type(own, `${client.name}${n}`);
          last.set(`line ${own}`, `line ${own} ${client.name}${n}`);
        } else if (does === 'add') {
          client.add(`added ${client.name}${n}`);
          added.push(`added ${client.name}${n}`);
        } else client[does]();
      });
      // In the end both save and hear until nothing is new.
      for (let round = 0; round < 4; round++)
        for (const client of clients) {
          client.hear();
          client.save();
        }
      for (const client of clients) client.hear();
      const [a, b] = clients;
      expect([a.state.save, b.state.save]).toEqual(['saved', 'saved']);
      expect(a.state.text).toBe(b.state.text);
      expect(a.state.text).toBe(server.text);
      for (const words of [...last.values(), ...added]) expect(a.state.text.split(`"${words}"`)).toHaveLength(2);
      const { tree, problems } = parseFlow(a.state.text);
      expect(problems).toEqual([]);
      expect(numberedLines(tree.lines)).toHaveLength(7 + added.length);
    }),
    { numRuns: 300 },
  );
});

test('one line changed by both is a conflict for whoever comes later, and the choice keeps the other one undo away', () => {
  const server = new Server();
  const [a, b] = [new Client(server, 'a'), new Client(server, 'b')];
  a.type(0, 'mine');
  b.type(0, 'yours');
  a.save();
  b.save();
  expect(b.state).toMatchObject({ save: 'conflict' });
  expect(b.state.text).toContain('line 0 yours');
  b.send({ kind: 'load', text: server.text, base: server.no });
  expect(b.state).toMatchObject({ save: 'saved', text: server.text });
  b.send({ kind: 'undo' });
  expect(b.state.text).toContain('line 0 yours');
  b.save();
  a.hear();
  expect(a.state.text).toContain('line 0 yours');
});
