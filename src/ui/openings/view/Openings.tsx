/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, Select, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { plural } from '../../../core/base';
import { isFigure, printValue, type FactValue, type Field } from '../../../core/fields';
import { USUAL_STAGES } from '../../../core/hiring';
import { call, sayProblem } from '../../client';
import { useFields } from '../../client/fields';
import { ago } from '../../kit/format';
import Link from '../../kit/Link';
import { PutInFlow, type FlowName } from '../../client/PutInFlow';
import { Empty, Said, Tag, TopBar, type SaidText } from '../../kit/parts';
import { OpeningCard, type OpeningItem } from './OpeningCard';
import './openings.css';
import { placed } from '../../kit/placed';

interface Applicant {
  readonly id: string;
  readonly personId: string;
  readonly personName: string;
  readonly stage: string;
  readonly stageSince: number;
  readonly ownerName: string | null;
  readonly createdAt: number;
  readonly education: string | null;
  readonly own: Readonly<Record<string, FactValue>>;
  /** values of the application's own fields */
  readonly values: Readonly<Record<string, FactValue>>;
  readonly years: number | null;
  readonly languages: string | null;
  readonly driving: boolean | null;
  readonly place: string | null;
}
interface Props {
  readonly openings: readonly OpeningItem[];
  readonly view: {
    readonly opening: OpeningItem;
    readonly applications: readonly Applicant[];
  } | null;
  /** what is known of the opening that is shown, in fields of its own */
  readonly known: ReactNode;
  readonly flows: readonly FlowName[];
  readonly now: number;
  readonly mayChange: boolean;
}

/** What people can apply for, and who has: what their papers say side by side, and how far each is. */
export function Openings({ openings, view, known, flows, now, mayChange }: Props) {
  const router = useRouter();
  const [said, setSaid] = useState<SaidText | null>(null);
  const [naming, setNaming] = useState<string | null>(null);
  const failed = (error: unknown): void => {
    setSaid({ calm: false, text: sayProblem(error) });
  };
  const make = (name: string): void => {
    call('createOpening', { body: { name, stages: [...USUAL_STAGES], criteria: [], place: '', description: '', isOpen: true } }).then(
      ({ id }) => {
        setNaming(null);
        router.push(`/openings?of=${id}`);
        router.refresh();
      },
      failed,
    );
  };
  return (
    <>
      <TopBar
        title="Openings"
        tags={<span className="quiet">{plural(openings.filter((opening) => opening.isOpen).length, 'open one')}</span>}
      >
        {mayChange && naming === null ? (
          <Button
            onClick={() => {
              setNaming('');
            }}
          >
            New opening
          </Button>
        ) : null}
        {naming === null ? null : (
          <form
            className="name-it"
            onSubmit={(event) => {
              event.preventDefault();
              make(naming);
            }}
          >
            <TextField
              autoFocus
              label="What is it called?"
              value={naming}
              onChange={(event) => {
                setNaming(event.target.value);
              }}
              onKeyDown={(event) => {
                if (event.key === 'Escape') setNaming(null);
              }}
            />
            <Button type="submit" variant="contained" disabled={naming.trim() === ''}>
              Make it
            </Button>
          </form>
        )}
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      {view === null ? (
        <Empty title="Nobody is looked for yet">
          An opening has a description, what a good candidate has, and its stages. Flows put applications here with “open application for
          …”.
        </Empty>
      ) : (
        <div className="cols">
          <section className="col paper openings-list" aria-label="Openings">
            {openings.map((opening) => (
              <Link
                key={opening.id}
                href={`/openings?of=${opening.id}`}
                className={opening.id === view.opening.id ? 'on' : ''}
                aria-current={opening.id === view.opening.id ? 'page' : undefined}
              >
                <span className="strong">{opening.name}</span>
                <span className="quiet small">
                  {opening.place}
                  {opening.place ? ' · ' : ''}
                  {plural(opening.applications, 'application')}
                  {opening.isOpen ? '' : ' · closed'}
                </span>
              </Link>
            ))}
            <OpeningCard opening={view.opening} known={known} mayChange={mayChange} onSaid={setSaid} />
          </section>
          <section className="col" css={placed({ flex: '1 1 700px' })} aria-label={`Applications for ${view.opening.name}`}>
            <Applicants view={view} flows={flows} now={now} mayChange={mayChange} onProblem={failed} onSaid={setSaid} />
          </section>
        </div>
      )}
    </>
  );
}

function Applicants({
  view,
  flows,
  now,
  mayChange,
  onProblem,
  onSaid,
}: {
  readonly view: NonNullable<Props['view']>;
  readonly flows: readonly FlowName[];
  readonly now: number;
  readonly mayChange: boolean;
  readonly onProblem: (error: unknown) => void;
  readonly onSaid: (said: SaidText) => void;
}) {
  const router = useRouter();
  const counted = useCounted();
  const columns = useFields()
    .all('application')
    .filter((field) => field.isListed);
  const [stage, setStage] = useState<string | null>(null);
  const { opening, applications } = view;
  const shown = applications.filter((application) => stage === null || application.stage === stage);
  const move = (id: string, to: string): void => {
    call('changeApplication', { params: { id }, body: { stage: to } }).then(() => {
      router.refresh();
    }, onProblem);
  };
  if (applications.length === 0)
    return (
      <Empty title="Nobody has applied yet">
        A flow opens applications with “open application for "{opening.name}" at "{opening.stages[0]}"”, for example from a form that takes
        a CV.
      </Empty>
    );
  return (
    <>
      <div className="stages" role="group" aria-label="Stage">
        {[null, ...opening.stages].map((entry) => (
          <button
            key={entry ?? ''}
            className={entry === stage ? 'on' : ''}
            aria-pressed={entry === stage}
            onClick={() => {
              setStage(entry);
            }}
          >
            {entry ?? 'All'}{' '}
            <span className="quiet">{applications.filter((application) => entry === null || application.stage === entry).length}</span>
          </button>
        ))}
        <span className="grow" />
        {flows.length > 0 && shown.length > 0 ? (
          <PutInFlow
            label="Put these in a flow"
            flows={flows}
            recordIds={shown.map((application) => application.personId)}
            say={({ started, already }, flow) =>
              `${plural(started, 'candidate is', 'candidates are')} on the way through ${flow.name}${already > 0 ? `; ${already} were in it already` : ''}.`
            }
            onSaid={onSaid}
          />
        ) : null}
      </div>
      <div css={placed({ overflow: 'auto' })}>
        <table className="plain applicants">
          <thead>
            <tr>
              <th>Candidate</th>
              <th>Training</th>
              <th className="right">{counted.length === 1 ? counted[0]?.label : 'Years of work'}</th>
              <th>Languages</th>
              <th>Drives</th>
              {columns.map((field) => (
                <th key={field.key} className={isFigure(field) ? 'right' : undefined}>
                  {field.label}
                </th>
              ))}
              <th>Stage</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((application) => (
              <Applicant
                key={application.id}
                application={application}
                stages={opening.stages}
                columns={columns}
                now={now}
                onMove={mayChange ? move : undefined}
              />
            ))}
          </tbody>
        </table>
        {shown.length === 0 ? <p className="quiet none">Nobody is at {stage}.</p> : null}
      </div>
    </>
  );
}

interface ApplicantProps {
  readonly application: NonNullable<Props['view']>['applications'][number];
  readonly stages: readonly string[];
  readonly columns: readonly Field[];
  readonly now: number;
  readonly onMove: ((id: string, to: string) => void) | undefined;
}
function Applicant({ application, stages, columns, now, onMove }: ApplicantProps) {
  return (
    <tr>
      <td>
        <Link href={`/records/people/${application.personId}`} className="strong">
          {application.personName}
        </Link>
        <div className="quiet small">
          {application.place ? `${application.place} · ` : ''}
          <Link href={`/records/people/${application.personId}/dossier`}>dossier</Link>
        </div>
      </td>
      <td className="said">{application.education ?? <span className="quiet">not said</span>}</td>
      <td className="right">
        <Years application={application} />
      </td>
      <td className="said">{application.languages ?? <span className="quiet">not said</span>}</td>
      <td>
        {application.driving === null ? (
          <span className="quiet">not said</span>
        ) : (
          <Tag tone={application.driving ? 'moss' : 'brick'}>{application.driving ? '✓ yes' : '✕ no'}</Tag>
        )}
      </td>
      {columns.map((field) => (
        <td key={field.key} className={isFigure(field) ? 'right' : undefined}>
          {application.values[field.key] === undefined ? (
            <span className="quiet">not said</span>
          ) : (
            printValue(application.values[field.key], field.unit)
          )}
        </td>
      ))}
      <td>
        {onMove ? (
          <Select
            value={application.stage}
            onChange={(event) => {
              onMove(application.id, event.target.value);
            }}
            inputProps={{ 'aria-label': `Stage of ${application.personName}` }}
            sx={{ fontSize: 12 }}
          >
            {stages.map((to) => (
              <MenuItem key={to} value={to}>
                {to}
              </MenuItem>
            ))}
          </Select>
        ) : (
          application.stage
        )}
        <div className="quiet small">
          {application.ownerName ?? 'nobody looks after it'}, {ago(application.stageSince, now)}
        </div>
      </td>
    </tr>
  );
}

/** The kinds of work whose years the workspace counts. */
const useCounted = () =>
  useFields()
    .all('person')
    .filter((field) => field.yearsIn);

/** Years of the kinds of work that the workspace counts, of all years of work. */
function Years({ application: { own, years } }: { readonly application: Applicant }) {
  const counted = useCounted();
  if (years === null) return <span className="quiet">not said</span>;
  const said = ({ key }: (typeof counted)[number]): string => {
    const value = own[key];
    return typeof value === 'number' ? plural(value, 'year') : 'none said';
  };
  if (counted.length === 0) return plural(years, 'year');
  return (
    <>
      {counted.map((field) => (
        <div key={field.key}>
          {counted.length > 1 ? <span className="quiet small">{field.label} </span> : null}
          {said(field)}
        </div>
      ))}
      <div className="quiet small">of {plural(years, 'year')} of work</div>
    </>
  );
}
