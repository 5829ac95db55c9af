/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { fieldsAskedFor, type Library } from '../../../core/flow/check';
import { catalogueOf } from '../../../core/fields';
import { sayLine } from '../../../core/flow/say';
import { FieldsAskedFor } from './FieldsAskedFor';
import { Sentence } from './Sentence';
import { placed } from '../../kit/placed';
import { useLineEditor, type LineEditorProps, type TypedLine } from './useLineEditor';

/**
 * One line typed as flow text. Completion is offered while typing (Tab takes the first); below stands what was understood.
 * Enter takes the line over, Shift+Enter begins a clause, Escape leaves. Text that is not understood is not taken.
 */
export function LineEditor(props: LineEditorProps) {
  const { initial, label, library, gone, onTake, onCancel } = props;
  const editor = useLineEditor(props);
  const { typed, area, line, canTake } = editor;
  return (
    <div className="line-editor">
      {gone ? (
        <p className="meanwhile" role="status">
          ◆ somebody took this line out meanwhile: taken over, it stands here as a new one
        </p>
      ) : editor.isBehind ? (
        <p className="meanwhile" role="status">
          ◆ somebody changed this line meanwhile to <span className="code">{initial}</span>{' '}
          <button className="linkish" onClick={editor.goOnWithTheirs}>
            go on with theirs
          </button>
        </p>
      ) : null}
      <textarea
        ref={area}
        className="code"
        autoFocus
        rows={Math.max(1, typed.split('\n').length)}
        value={typed}
        aria-label={label}
        placeholder="type a line: keep, read, score, write, wait …"
        spellCheck={false}
        onChange={(event) => {
          editor.type(event.target.value, event.target.selectionStart);
        }}
        onSelect={(event) => {
          editor.setCaret(event.currentTarget.selectionStart);
        }}
        onKeyDown={editor.onKey}
      />
      <Offers editor={editor} />
      <div className="understood">
        <span className="grow" role="status">
          <Understood editor={editor} library={library} />
        </span>
        <Button
          variant="contained"
          disabled={!canTake}
          onClick={() => {
            onTake(typed);
          }}
        >
          Take it over
        </Button>
        <Button variant="text" onClick={onCancel}>
          Leave
        </Button>
      </div>
      {canTake && line ? <FieldsAskedFor fields={fieldsAskedFor(line, library)} /> : null}
    </div>
  );
}

/** Completions of what is typed, or the lines a phrase may mean. */
function Offers({ editor: { completion, readings, at, insert, read } }: { readonly editor: TypedLine }) {
  return (
    <>
      {completion && completion.options.length > 0 ? (
        <div className="options" aria-label="Completions">
          {completion.options.slice(0, 8).map((option, i) => (
            <button
              key={option.label}
              className={i === at ? 'on' : ''}
              onMouseDown={(event) => {
                event.preventDefault();
                insert(i);
              }}
            >
              <span className="code">{option.label}</span> <span className="quiet small">{option.detail}</span>
            </button>
          ))}
        </div>
      ) : null}
      {readings.length > 0 ? (
        <div className="options" aria-label="Understood as">
          {readings.map((entry, i) => (
            <button
              key={entry}
              className={i === at ? 'on' : ''}
              onMouseDown={(event) => {
                event.preventDefault();
                read(i);
              }}
            >
              <span className="code" css={placed({ whiteSpace: 'pre' })}>
                {entry}
              </span>
            </button>
          ))}
        </div>
      ) : null}
    </>
  );
}

function Understood({
  editor: { typed, readings, phrase, line, problem },
  library,
}: {
  readonly editor: TypedLine;
  readonly library: Library;
}) {
  return (
    <>
      {typed.trim() === '' ? (
        <span className="quiet">Tab completes · Shift+Enter begins a clause · Escape leaves</span>
      ) : readings.length > 0 ? (
        <span className="in-river">
          {readings.length === 1
            ? 'understood as this: Enter writes it'
            : `may mean ${readings.length} things: choose with ↑ ↓, Enter writes it`}
        </span>
      ) : phrase && !phrase.ok && line?.step.verb === 'unknown' ? (
        <span className="in-brick">{phrase.why}</span>
      ) : problem ? (
        <span className="in-brick">{problem.message}</span>
      ) : line ? (
        <Sentence parts={sayLine(line, catalogueOf(library.fields))} />
      ) : null}
    </>
  );
}
