'use client';
import { autocompletion, completionKeymap, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { HighlightStyle, LanguageSupport, LRLanguage, syntaxHighlighting } from '@codemirror/language';
import { linter, lintGutter, type Diagnostic } from '@codemirror/lint';
import { Annotation, Compartment, EditorState, Transaction, type Extension } from '@codemirror/state';
import { useNonce } from '../../kit/Kit';
import { EditorView, hoverTooltip, keymap, lineNumbers, type Tooltip } from '@codemirror/view';
import { styleTags, tags } from '@lezer/highlight';
import { diffLines } from 'diff';
import { useEffect, useLayoutEffect, useRef } from 'react';
import { checkFlow, type Library } from '../../../core/flow/check';
import { completeAt, helpAt } from '../../../core/flow/complete';
import { flowParser, parseFlow, printFlow } from '../../../core/flow/syntax';

interface Props {
  /** the draft; shown canonical and without marks. While it is open the view keeps what is typed as it is typed */
  readonly text: string;
  readonly library: Library;
  readonly mayEdit: boolean;
  readonly onChange: (text: string) => void;
}

const language = LRLanguage.define({
  name: 'flow text',
  parser: flowParser.configure({
    props: [
      styleTags({
        'Head/Word': tags.keyword,
        String: tags.string,
        Number: tags.number,
        Comment: tags.comment,
        Op: tags.operator,
        Mark: tags.meta,
      }),
    ],
  }),
  languageData: { commentTokens: { line: '//' } },
});

const looks = HighlightStyle.define([
  { tag: tags.keyword, fontWeight: '700', color: 'var(--ink)' },
  { tag: tags.string, color: 'var(--river-deep)', fontWeight: '600' },
  { tag: tags.number, color: 'var(--river)' },
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
  { tag: tags.meta, color: 'var(--quiet)' },
]);

const dress = EditorView.theme({
  '.cm-content': { fontFamily: "'DejaVu Sans Mono', monospace", fontSize: '12.5px', lineHeight: '21px', padding: '10px 0' },
  '.cm-gutters': {
    fontSize: '12px',
    lineHeight: '21px',
    background: 'var(--ground)',
    color: 'var(--quiet)',
    border: 'none',
    borderRight: '1px solid var(--line)',
  },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-tooltip': { background: 'var(--paper)', color: 'var(--ink)', border: '1px solid var(--line)', borderRadius: '4px' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { background: 'var(--w1)', color: 'var(--river-deep)' },
});

/** A change that was not typed here. */
const fromOutside = Annotation.define<boolean>();

/** The names a workspace has change while the view is open. */
const known = new Compartment();

/** Findings, help and completion, with these names. */
const knowing = (library: Library): Extension => [
  linter((editor) => findingsOf(editor.state.doc.toString(), library), { delay: 250 }),
  hoverTooltip((editor, at) => helpTooltip(editor, at, library), { hoverTime: 250 }),
  autocompletion({ override: [(context) => optionsAt(context, library)], icons: false }),
];

const shown = (text: string): string => printFlow(parseFlow(text).tree);

/** The rows that differ, as changes of the document. */
function changesBetween(before: string, after: string): readonly { readonly from: number; readonly to: number; readonly insert: string }[] {
  let at = 0;
  return diffLines(before, after).flatMap((part) => {
    const from = at;
    if (!part.added) at += part.value.length;
    return part.added ? [{ from, to: from, insert: part.value }] : part.removed ? [{ from, to: at, insert: '' }] : [];
  });
}

/** The same flow as flow text, with highlighting, completion, and the checker's findings with their mends. */
export function TextView({ text, library, mayEdit, onChange }: Props) {
  const nonce = useNonce();
  const opened = useRef<EditorView | null>(null);
  const emitted = useRef(text);
  const place = useRef<HTMLDivElement>(null);
  const change = useRef(onChange);
  useEffect(() => {
    change.current = onChange;
  }, [onChange]);
  useEffect(() => {
    if (!place.current) return;
    const view = new EditorView({
      parent: place.current,
      state: EditorState.create({
        doc: shown(text),
        extensions: [
          EditorView.cspNonce.of(nonce),
          lineNumbers(),
          EditorView.lineWrapping,
          history(),
          EditorState.readOnly.of(!mayEdit),
          EditorView.contentAttributes.of({ 'aria-label': 'Flow text' }),
          new LanguageSupport(language),
          syntaxHighlighting(looks),
          dress,
          lintGutter(),
          known.of(knowing(library)),
          keymap.of([...completionKeymap, ...historyKeymap, indentWithTab, ...defaultKeymap]),
          EditorView.updateListener.of((update) => {
            if (!update.docChanged || update.transactions.every((transaction) => transaction.annotation(fromOutside))) return;
            emitted.current = update.state.doc.toString();
            change.current(emitted.current);
          }),
        ],
      }),
    });
    opened.current = view;
    return () => {
      opened.current = null;
      view.destroy();
    };
    // The view keeps its own text, caret and focus while it is open.
  }, [mayEdit]);
  // The page is brought up to date often and the names seldom change: what is open (help, completion) stays open meanwhile.
  const names = JSON.stringify(library);
  const told = useRef(names);
  useEffect(() => {
    if (told.current === names) return;
    told.current = names;
    opened.current?.dispatch({ effects: known.reconfigure(knowing(library)) });
    // `names` stands for the library: the same names are the same library.
  }, [names]);
  // Undo, a mend or somebody else's change: what differs is put in; caret and scroll stay where they are. In a layout effect, so
  // that nothing can be typed between what was rendered and what is compared here.
  useLayoutEffect(() => {
    const view = opened.current;
    if (!view || text === emitted.current) return;
    const next = shown(text);
    emitted.current = text;
    const now = view.state.doc.toString();
    if (next !== shown(now))
      view.dispatch({ changes: changesBetween(now, next), annotations: [fromOutside.of(true), Transaction.addToHistory.of(false)] });
  }, [text]);
  return <div className="text-view" ref={place} />;
}

function findingsOf(text: string, library: Library): readonly Diagnostic[] {
  return checkFlow(parseFlow(text), library).map((finding) => ({
    from: Math.min(finding.from, text.length),
    to: Math.min(finding.to, text.length),
    severity: finding.severity,
    message: finding.message,
    ...(finding.mend && {
      actions: [
        {
          name: finding.mend.label,
          apply: (view: EditorView) => {
            view.dispatch({ changes: (finding.mend?.edits ?? []).map((edit) => ({ ...edit })) });
          },
        },
      ],
    }),
  }));
}

function helpTooltip(view: EditorView, at: number, library: Library): Tooltip | null {
  const help = helpAt(view.state.doc.toString(), at, library);
  if (!help) return null;
  return {
    pos: help.from,
    end: help.to,
    above: true,
    create: () => {
      const dom = document.createElement('div');
      dom.className = 'text-help';
      const title = dom.appendChild(document.createElement('strong'));
      title.textContent = help.title;
      const says = dom.appendChild(document.createElement('div'));
      says.textContent = help.says;
      return { dom };
    },
  };
}

function optionsAt(context: CompletionContext, library: Library): CompletionResult | null {
  const found = completeAt(context.state.doc.toString(), context.pos, library);
  if (!found || (!context.explicit && found.from === context.pos && !/["\s]$/.test(context.state.sliceDoc(0, context.pos)))) return null;
  return {
    from: found.from,
    filter: false,
    options: found.options.map((option) => ({ label: option.label, apply: option.insert, detail: option.detail })),
  };
}
