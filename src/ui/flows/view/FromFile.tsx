/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import type { Library } from '../../../core/flow/check';
import { plural } from '../../../core/base';
import { DropFile } from '../../kit/DropFile';
import Link from '../../kit/Link';
import { Problem, TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';
import './flows.css';
import { NamedInFile } from './NamedInFile';
import { useFromFile, type Seen } from './useFromFile';

interface Props {
  readonly library: Library;
  readonly mayEdit: boolean;
}

/** A flow from a file: everything it names is settled once, on one page, before anything is made. */
export function FromFile({ library, mayEdit }: Props) {
  const file = useFromFile(library);
  const { opened, seen, name, busy, problem, setProblem, look, takeIn, another } = file;
  return (
    <>
      <TopBar
        path={<Link href="/flows">Flows</Link>}
        title="From a file"
        tags={
          opened ? (
            <span className="quiet">
              {opened.fileName} · {plural(opened.lines, 'line')} · nothing is made yet
            </span>
          ) : (
            <span className="quiet">flow text, or a bundle with what the flow names</span>
          )
        }
      >
        {opened ? (
          <>
            <Button onClick={another}>Another file</Button>
            <Button
              variant="contained"
              disabled={!mayEdit || busy || name.trim() === '' || Object.keys(seen?.problems ?? {}).length > 0}
              onClick={takeIn}
            >
              Make this flow as a draft
            </Button>
          </>
        ) : null}
      </TopBar>
      <Problem
        says={problem}
        onClose={() => {
          setProblem(null);
        }}
      />
      {!opened || !seen ? (
        <section className="col paper grow">
          <DropFile
            title={busy ? 'Looking at it …' : 'Drop a flow here'}
            accept=".race,.zip,.txt,text/plain,application/zip"
            label="Flow file"
            disabled={busy || !mayEdit}
            onFile={look}
          >
            A .race file or a bundle (.zip), as “As a file” in the workbench gives it. You see what it names and what is missing here, and
            choose once for each; nothing here is written over.
          </DropFile>
        </section>
      ) : (
        <div className="cols">
          <NamedInFile file={file} opened={opened} seen={seen} />
          <AsItWouldStand seen={seen} />
        </div>
      )}
    </>
  );
}

function AsItWouldStand({ seen }: { readonly seen: Seen }) {
  return (
    <aside className="col" css={placed({ flex: '0 0 400px', overflow: 'auto' })} aria-label="The flow as it would stand here">
      <div className="bar ruled">
        <h2>As it would stand here</h2>
        <span className="grow" />
        {seen.make.length > 0 ? <span className="in-river small">+ {plural(seen.make.length, 'thing')} made with it</span> : null}
      </div>
      {seen.errors.length > 0 ? (
        <ul className="finding error" css={placed({ margin: '10px 16px', paddingLeft: 16 })}>
          {[...new Set(seen.errors)].slice(0, 6).map((message) => (
            <li key={message}>{message}</li>
          ))}
        </ul>
      ) : (
        <p className="in-moss" css={placed({ padding: '10px 16px 0' })}>
          ✓ the checker finds nothing wrong
        </p>
      )}
      <pre className="code" css={placed({ padding: '8px 16px', margin: 0, whiteSpace: 'pre-wrap' })} tabIndex={0} aria-label="Its text">
        {seen.text}
      </pre>
    </aside>
  );
}
