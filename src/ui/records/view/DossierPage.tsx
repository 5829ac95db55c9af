/** @jsxImportSource @emotion/react */
'use client';
import { Button, LinearProgress, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import type { Dossier, DossierLine } from '../../../core/dossier';
import { SOURCE_LABELS } from '../../../core/facts';
import type { Answer } from '../../../api';
import { ApiProblem, call, sayProblem } from '../../client';
import { ago, agoText, dayTimeText, euro, pageText, tookText } from '../../kit/format';
import Link from '../../kit/Link';
import { Empty, Notice, Said, TopBar, type SaidText } from '../../kit/parts';
import { sureness } from '../state/group';
import './dossier.css';
import './records.css';
import { placed } from '../../kit/placed';

type DossierView = Answer<'getDossier'>;
interface Props {
  readonly kind: 'person' | 'company';
  readonly id: string;
  readonly name: string;
  readonly company: { readonly id: string; readonly name: string } | null;
  readonly dossiers: readonly DossierView[];
  readonly now: number;
  readonly zone: string;
  readonly myAddress: string;
  readonly mayAsk: boolean;
}

/** What research found, in the order in which somebody reads it before a call; every line with what it rests on. */
export function DossierPage({ kind, id, name, company, dossiers, now, zone, myAddress, mayAsk }: Props) {
  const router = useRouter();
  const [chosen, setChosen] = useState<string | null>(null);
  const [said, setSaid] = useState<SaidText | null>(null);
  const [newest] = dossiers;
  const making = newest?.state === 'queued' ? newest : undefined;
  const shown = dossiers.find((entry) => entry.id === chosen) ?? dossiers.find((entry) => entry.state === 'done');
  const ask = (afresh: boolean): void => {
    setChosen(null);
    call('askDossier', { body: { kind, id, afresh } }).then(
      () => {
        router.refresh();
      },
      (error: unknown) => {
        setSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  return (
    <>
      <TopBar
        path={
          <>
            <Link href={kind === 'person' ? '/records' : '/records?kind=companies'}>Records</Link> /{' '}
            <Link href={kind === 'person' ? `/records/people/${id}` : `/records/companies/${id}`}>{name}</Link>
          </>
        }
        title="Dossier"
        tags={
          shown ? (
            <span className="quiet cut">{`made ${agoText(shown.createdAt, now)} · ${plural(shown.pages, 'page')} read`}</span>
          ) : undefined
        }
      >
        {shown ? <AsFile id={shown.id} /> : null}
        {mayAsk && shown ? (
          <Button
            variant="contained"
            disabled={making !== undefined}
            onClick={() => {
              ask(true);
            }}
          >
            Research again
          </Button>
        ) : null}
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      {newest?.state === 'failed' ? (
        <Notice>{`The last research on ${name} ended early: ${newest.problem ?? 'no reason given'}. What was known before is not lost.`}</Notice>
      ) : null}
      {making ? <Making making={making} now={now} /> : null}
      {shown?.content ? (
        <div className="cols">
          <Written content={shown.content} name={name} now={now} />
          <Beside
            dossiers={dossiers}
            shown={shown}
            choose={setChosen}
            now={now}
            zone={zone}
            company={kind === 'person' ? company : null}
            myAddress={myAddress}
            mayAsk={mayAsk}
            onSaid={setSaid}
          />
        </div>
      ) : making ? null : (
        <Empty
          title={`No dossier on ${name} yet`}
          action={
            mayAsk ? (
              <Button
                variant="contained"
                onClick={() => {
                  ask(false);
                }}
              >
                Research {name}
              </Button>
            ) : undefined
          }
        >
          Their site, news, the register, profiles and jobs posted are read and the standing questions answered, each with its source. It
          takes some seconds; you can leave this page meanwhile.
        </Empty>
      )}
    </>
  );
}

function Making({ making, now }: { readonly making: DossierView; readonly now: number }) {
  return (
    <div className="making" role="status">
      <span className="strong">Research is under way</span>
      <span className="quiet">
        {making.step} · {ago(making.createdAt, now) === 'now' ? 'just begun' : `for ${ago(making.createdAt, now)}`}
      </span>
      <LinearProgress aria-label="Research is under way" />
    </div>
  );
}

/** The few values that say who they are, side by side. */
function InShort({ lines }: { readonly lines: readonly DossierLine[] }) {
  return (
    <dl className="in-short">
      {lines.map((line) => (
        <div key={line.label}>
          <dt className="small quiet">
            {line.label} · {line.source === null ? 'no source' : SOURCE_LABELS[line.source]}
            {line.others.length > 0 ? <span className="in-brass"> · disputed</span> : null}
          </dt>
          <dd className="strong">{line.text}</dd>
        </div>
      ))}
    </dl>
  );
}

/** A page of a site by its path alone: whose site it is stands above. */
const placeText = (line: DossierLine, url: string): string =>
  line.source === null || line.source === 'site' ? `site ${pageText(url).replace(/^[^/]+/, '') || '/'}` : SOURCE_LABELS[line.source];

function Line({ line, now }: { readonly line: DossierLine; readonly now: number }) {
  const rests = line.source !== null || line.url !== null;
  return (
    <div className={`dossier-line ${line.label === '' ? 'alone' : ''}`}>
      {line.label === '' ? null : <span className="quiet">{line.label}</span>}
      <div>
        <span className={line.label === '' ? '' : 'strong'}>{line.text}</span>
        {line.quote === null ? null : <span className="quote small">“{line.quote}”</span>}
        {line.others.length > 0 ? <div className="small in-brass">also said: {line.others.join('; ')}</div> : null}
      </div>
      {rests ? (
        <span className="from small quiet">
          {line.url === null ? (
            line.source === null ? null : (
              SOURCE_LABELS[line.source]
            )
          ) : (
            <a href={line.url} target="_blank" rel="noreferrer" title={line.url}>
              {placeText(line, line.url)}
            </a>
          )}
          {line.date === null ? null : ` · ${ago(line.date, now)}`}
          {line.confidence === null ? null : ` · ${sureness(line.confidence)}`}
        </span>
      ) : (
        <span />
      )}
    </div>
  );
}

function Beside({
  dossiers,
  shown,
  choose,
  now,
  zone,
  company,
  myAddress,
  mayAsk,
  onSaid,
}: {
  readonly dossiers: readonly DossierView[];
  readonly shown: DossierView;
  readonly choose: (id: string) => void;
  readonly now: number;
  readonly zone: string;
  readonly company: Props['company'];
  readonly myAddress: string;
  readonly mayAsk: boolean;
  readonly onSaid: (said: SaidText) => void;
}) {
  const sources = new Map<string, number>();
  for (const section of shown.content?.sections ?? [])
    for (const { source } of section.lines)
      if (source !== null) sources.set(SOURCE_LABELS[source], (sources.get(SOURCE_LABELS[source]) ?? 0) + 1);
  return (
    <section className="col beside" css={placed({ flex: '0 0 270px' })} aria-label="About this dossier">
      <div className="bar">
        <h2 className="grow">How it was made</h2>
      </div>
      <dl className="figures">
        <dt>made</dt>
        <dd>{dayTimeText(shown.createdAt, zone)}</dd>
        <dt>asked by</dt>
        <dd>{shown.createdByName ?? 'a flow'}</dd>
        <dt>took</dt>
        <dd>{tookText(shown.tookMs)}</dd>
        <dt>cost</dt>
        <dd>{euro(shown.costMicro)}</dd>
        <dt>read</dt>
        <dd>{plural(shown.pages, 'page')}</dd>
        {[...sources].map(([label, count]) => (
          <Figures key={label} label={label} count={count} />
        ))}
      </dl>
      {mayAsk ? <SendOn id={shown.id} myAddress={myAddress} onSaid={onSaid} /> : null}
      {company ? (
        <div className="next-block">
          <Link href={`/records/companies/${company.id}/dossier`}>Dossier of {company.name}</Link>
        </div>
      ) : null}
      {dossiers.filter((entry) => entry.state === 'done').length > 1 ? (
        <div className="next-block">
          <h3 className="small quiet">Made before</h3>
          {dossiers
            .filter((entry) => entry.state === 'done')
            .map((entry) => (
              <button
                key={entry.id}
                className="linkish earlier"
                aria-current={entry.id === shown.id}
                onClick={() => {
                  choose(entry.id);
                }}
              >
                {dayTimeText(entry.createdAt, zone)} · {ago(entry.createdAt, now)} · {euro(entry.costMicro)}
              </button>
            ))}
        </div>
      ) : null}
    </section>
  );
}

function Figures({ label, count }: { readonly label: string; readonly count: number }) {
  return (
    <>
      <dt>from {label}</dt>
      <dd>{plural(count, 'line')}</dd>
    </>
  );
}

function SendOn({ id, myAddress, onSaid }: { readonly id: string; readonly myAddress: string; readonly onSaid: (said: SaidText) => void }) {
  const [to, setTo] = useState(myAddress);
  /** an address nobody is known by, said back before anything goes there */
  const [stranger, setStranger] = useState<string | null>(null);
  return (
    <form
      className="next-block"
      onSubmit={(event) => {
        event.preventDefault();
        const address = to.trim();
        call('sendDossier', { params: { id }, body: { to: address, ...(stranger === address && { confirm: address }) } }).then(
          () => {
            setStranger(null);
            onSaid({ calm: true, text: `The dossier goes to ${to.trim()}, as text and as PDF.` });
          },
          (error: unknown) => {
            if (error instanceof ApiProblem && 'confirm' in error.detail) setStranger(address);
            else onSaid({ calm: false, text: sayProblem(error) });
          },
        );
      }}
    >
      {stranger !== null ? (
        <p className="small in-brass" role="alert">
          Nobody here is known by {stranger}. What we know about them would leave the house; who sent it stands in the audit.
        </p>
      ) : null}
      <TextField
        fullWidth
        label="Send it to"
        type="email"
        value={to}
        onChange={(event) => {
          setTo(event.target.value);
          setStranger(null);
        }}
      />
      <Button type="submit" css={placed({ marginTop: 8 })} disabled={to.trim() === ''}>
        {stranger === null ? 'Send by mail' : `Send it to ${stranger}`}
      </Button>
    </form>
  );
}

/** The dossier itself, part by part. */
function Written({ content, name, now }: { readonly content: Dossier; readonly name: string; readonly now: number }) {
  return (
    <article className="col paper dossier" aria-label={`Dossier of ${name}`}>
      <h2 className="dossier-title">{content.title}</h2>
      <p className="quiet">{content.under}</p>
      {content.sections.map((section) => (
        <section key={section.id} aria-labelledby={`part-${section.id}`} className={`part ${section.id}`}>
          <h3 id={`part-${section.id}`}>{section.title}</h3>
          {section.id === 'short' ? (
            <InShort lines={section.lines} />
          ) : (
            section.lines.map((line, i) => <Line key={i} line={line} now={now} />)
          )}
        </section>
      ))}
    </article>
  );
}

function AsFile({ id }: { readonly id: string }) {
  return (
    <>
      <Button component="a" href={`/api/v1/dossiers/${id}/file?as=pdf`}>
        PDF
      </Button>
      <Button component="a" href={`/api/v1/dossiers/${id}/file?as=markdown`}>
        Markdown
      </Button>
      <Button
        onClick={() => {
          window.print();
        }}
      >
        Print
      </Button>
    </>
  );
}
