/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { Choice } from '../../../core/flow/bundle';
import type { Library } from '../../../core/flow/check';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { DropFile } from '../../kit/DropFile';
import Link from '../../kit/Link';
import { Problem, Tag, TopBar } from '../../kit/parts';
import { needOf, offersFor, outlook, valueOf, type Arriving } from '../state/from-file';
import './flows.css';
import { placed } from '../../kit/placed';

interface Props {
  readonly library: Library;
  readonly mayEdit: boolean;
}
type Opened = Arriving & { readonly fileName: string; readonly name: string; readonly lines: number };

/** A flow from a file: everything it names is settled once, on one page, before anything is made. */
export function FromFile({ library, mayEdit }: Props) {
  const router = useRouter();
  const [opened, setOpened] = useState<Opened | null>(null);
  const [name, setName] = useState('');
  const [choices, setChoices] = useState<Readonly<Record<string, Choice>>>({});
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const seen = useMemo(() => (opened ? outlook(opened, library, choices) : null), [opened, library, choices]);

  const look = (file: File): void => {
    setBusy(true);
    setProblem(null);
    call('lookAtFlowFile', { query: { name: file.name }, file }).then(
      (view) => {
        setBusy(false);
        setOpened({ ...(view as unknown as Arriving), fileName: file.name, name: view.name, lines: view.lines });
        setName(view.freeName);
        setChoices({});
      },
      (error: unknown) => {
        setBusy(false);
        setProblem(sayProblem(error));
      },
    );
  };
  const takeIn = (): void => {
    if (!opened) return;
    setBusy(true);
    setProblem(null);
    call('takeInFlow', { body: { bundle: { ...opened.bundle, things: [...opened.bundle.things] }, choices: { ...choices }, name } }).then(
      (flow) => {
        router.push(`/flows/${flow.id}`);
      },
      (error: unknown) => {
        setBusy(false);
        setProblem(sayProblem(error));
      },
    );
  };
  // What needs a person stands first, whatever is chosen by then.
  const rows = [...(opened?.matches ?? [])]
    .sort((a, b) => NEED_ORDER[needOf(a, a.choice)] - NEED_ORDER[needOf(b, b.choice)])
    .map((match) => ({ match, choice: choices[match.key] ?? match.choice }));
  const open = rows.filter(({ match, choice }) => needOf(match, choice) === 'choice').length;
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
            <Button
              onClick={() => {
                setOpened(null);
              }}
            >
              Another file
            </Button>
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
          <section className="col paper grow" aria-label="What it names" css={placed({ overflow: 'auto' })}>
            <div className="bar ruled" css={placed({ gap: 12 })}>
              <label className="strong" htmlFor="flow-name" css={placed({ whiteSpace: 'nowrap' })}>
                Its name here
              </label>
              <TextField
                id="flow-name"
                value={name}
                css={placed({ width: 240 })}
                onChange={(event) => {
                  setName(event.target.value);
                }}
              />
              {opened.name === name ? null : <span className="quiet small cut">“{opened.name}” in the file</span>}
              <span className="grow" />
              {open > 0 ? (
                <span className="in-brass" css={placed({ whiteSpace: 'nowrap' })}>
                  ○ {plural(open, 'name is', 'names are')} left open
                </span>
              ) : (
                <span className="in-moss" css={placed({ whiteSpace: 'nowrap' })}>
                  ✓ everything it names is settled
                </span>
              )}
            </div>
            <table className="plain">
              <thead>
                <tr>
                  <th>it names</th>
                  <th>here</th>
                  <th>what is taken</th>
                  <th>named by</th>
                </tr>
              </thead>
              <tbody>
                {rows.map(({ match, choice }) => (
                  <tr key={match.key} css={placed({ verticalAlign: 'top' })}>
                    <td>
                      <span className="quiet">{KIND_WORDS[match.kind] ?? match.kind}</span> <span className="strong">{match.name}</span>
                      {match.state === 'differs' ? (
                        <details className="small quiet">
                          <summary>{plural(match.differences.length, 'difference')}</summary>
                          {match.differences.slice(0, 12).map((line) => (
                            <div key={line} className="code">
                              {line}
                            </div>
                          ))}
                          {match.differences.length > 12 ? <div>and {match.differences.length - 12} more</div> : null}
                        </details>
                      ) : null}
                    </td>
                    <td>
                      {match.state === 'differs' ? (
                        <Tag tone="brass">≠ another content</Tag>
                      ) : match.state === 'missing' ? (
                        <Tag tone={match.carried ? 'river' : 'brass'}>{match.carried ? '+ in the file only' : '○ not here'}</Tag>
                      ) : (
                        <Tag tone="moss">{match.state === 'same' ? '✓ the same' : '✓ there'}</Tag>
                      )}
                    </td>
                    <td>
                      {match.state === 'same' || (offersFor(match).length === 1 && choice.does === 'use') ? (
                        <span className="quiet">the one here</span>
                      ) : (
                        <TextField
                          select
                          value={valueOf(choice)}
                          css={placed({ width: 236 })}
                          error={seen.problems[match.key] !== undefined}
                          helperText={seen.problems[match.key]}
                          slotProps={{ htmlInput: { 'aria-label': `What is taken for ${match.kind} ${match.name}` } }}
                          onChange={(event) => {
                            const offer = offersFor(match).find((entry) => entry.value === event.target.value);
                            if (offer) setChoices({ ...choices, [match.key]: offer.choice });
                          }}
                        >
                          {offersFor(match).map((offer) => (
                            <MenuItem key={offer.value} value={offer.value}>
                              {offer.label}
                            </MenuItem>
                          ))}
                        </TextField>
                      )}
                    </td>
                    <td className="quiet small">
                      {match.by.slice(0, 3).join(', ')}
                      {match.by.length > 3 ? ` and ${match.by.length - 3} more` : ''}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {rows.length === 0 ? <p className="empty">This flow names nothing that would have to be here.</p> : null}
          </section>
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
            <pre
              className="code"
              css={placed({ padding: '8px 16px', margin: 0, whiteSpace: 'pre-wrap' })}
              tabIndex={0}
              aria-label="Its text"
            >
              {seen.text}
            </pre>
          </aside>
        </div>
      )}
    </>
  );
}

const NEED_ORDER = { choice: 0, look: 1, nothing: 2 } as const;
const KIND_WORDS: Readonly<Record<string, string>> = {
  template: 'text',
  chain: 'lookup chain',
  connection: 'mailbox',
  addressee: 'person, team or webhook',
};
