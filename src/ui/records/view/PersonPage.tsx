/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { ago, dayText, dayTimeText } from '../../kit/format';
import { Said, Tag, TopBar, type SaidText } from '../../kit/parts';
import { nextWords, timeline } from '../state/group';
import type { Happening, KnownField, MergeItem, MessageItem } from '../state/types';
import { Known } from './Known';
import { PutInFlow, type FlowName } from '../../client/PutInFlow';
import './records.css';
import { Timeline } from './Timeline';
import { placed } from '../../kit/placed';

export interface PersonView {
  readonly person: {
    readonly id: string;
    readonly name: string;
    readonly firstName: string | null;
    readonly jobTitle: string | null;
    readonly email: string | null;
    readonly status: string | null;
    readonly ownerName: string | null;
  };
  readonly company: { readonly id: string; readonly name: string; readonly status: string | null } | null;
  readonly known: readonly KnownField[];
  readonly happened: readonly Happening[];
  readonly messages: readonly MessageItem[];
  readonly reviews: readonly { readonly id: string; readonly subject: string; readonly who: string; readonly createdAt: number }[];
  readonly trips: readonly {
    readonly id: string;
    readonly flowName: string;
    readonly state: string;
    readonly says: string | null;
    readonly dueAt: number | null;
    readonly stateDetail: { readonly why?: unknown };
  }[];
  readonly deals: readonly {
    readonly id: string;
    readonly title: string;
    readonly stage: string;
    readonly stageSince: number;
    readonly amount: number | null;
    readonly ownerName: string | null;
  }[];
  readonly applications: readonly {
    readonly id: string;
    readonly openingId: string;
    readonly openingName: string;
    readonly stage: string;
    readonly stageSince: number;
    readonly ownerName: string | null;
  }[];
  readonly merges: readonly MergeItem[];
  readonly score: {
    readonly tripId: string;
    readonly points: number;
    readonly band: string;
    readonly out: boolean;
    readonly working: readonly { readonly text: string; readonly points: number; readonly of: number }[];
  } | null;
}
interface Props {
  readonly view: PersonView;
  readonly flows: readonly FlowName[];
  readonly now: number;
  readonly zone: string;
  readonly mayChange: boolean;
  readonly mayStart: boolean;
  readonly mayDecide: boolean;
  readonly mayErase: boolean;
}

/** A person: what we know, what happened, what comes next. */
export function PersonPage({ view, flows, now, zone, mayChange, mayStart, mayDecide, mayErase }: Props) {
  const router = useRouter();
  const [said, setSaid] = useState<SaidText | null>(null);
  const { person, company } = view;
  const undo = (id: number): void => {
    call('undoMerge', { params: { id: String(id) }, body: {} }).then(
      () => {
        setSaid({ calm: true, text: 'The two records stand alone again.' });
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
        path={<Link href="/records">Records</Link>}
        title={person.name}
        tags={
          <span className="quiet cut">
            {person.jobTitle}
            {company ? (
              <>
                {person.jobTitle ? ' · ' : ''}
                <Link href={`/records/companies/${company.id}`}>{company.name}</Link>
              </>
            ) : null}{' '}
            {person.status ? <Tag>{person.status}</Tag> : null}
          </span>
        }
      >
        {mayErase ? (
          <Button component={Link} href={`/settings/data?person=${person.id}`}>
            Their data
          </Button>
        ) : null}
        <Button component={Link} href={`/records/people/${person.id}/dossier`}>
          Dossier
        </Button>
        {mayStart && flows.length > 0 ? (
          <PutInFlow
            label="Put in a flow"
            flows={flows}
            recordIds={[person.id]}
            say={({ started }, flow) =>
              started === 1
                ? `${person.name} is on the way through ${flow.name}.`
                : `${person.name} is in ${flow.name} already: nobody is taken twice.`
            }
            onSaid={(next) => {
              setSaid(next);
              router.refresh();
            }}
          />
        ) : null}
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <div className="cols">
        <section className="col paper" css={placed({ flex: '0 0 430px' })}>
          <Known
            known={view.known}
            of={[
              { record: 'person', id: view.person.id },
              ...(view.company ? [{ record: 'company' as const, id: view.company.id }] : []),
              ...view.applications.map(({ id, openingName }) => ({
                record: 'application' as const,
                id,
                ...(view.applications.length > 1 && { name: openingName }),
              })),
            ]}
            now={now}
            mayChange={mayChange}
          />
        </section>
        <section className="col" css={placed({ flex: '1 1 384px' })}>
          <Timeline
            items={timeline(view.happened, view.messages, person.firstName ?? person.name)}
            now={now}
            zone={zone}
            noteOn={mayChange ? person.id : undefined}
          />
        </section>
        <section className="col paper" css={placed({ flex: '0 0 290px' })} aria-label="What comes next">
          <ComesNext view={view} now={now} zone={zone} mayDecide={mayDecide} undo={undo} />
        </section>
      </div>
    </>
  );
}

function Block({
  glyph,
  tone,
  title,
  aside,
  children,
}: {
  readonly glyph: string;
  readonly tone: string;
  readonly title: ReactNode;
  readonly aside?: ReactNode;
  readonly children?: ReactNode;
}) {
  return (
    <div className="next-block">
      <div>
        <span className={tone} aria-hidden>
          {glyph}
        </span>{' '}
        <span className="strong">{title}</span> <span className="quiet">{aside}</span>
      </div>
      {children}
    </div>
  );
}

const TRIP_WORDS: Readonly<Record<string, string>> = {
  following: 'follow-up under way',
  asking: 'waits for a person',
  stuck: 'stuck',
  waiting: 'waits',
  ready: 'under way',
};

function ComesNext({
  view,
  now,
  zone,
  mayDecide,
  undo,
}: Pick<Props, 'view' | 'now' | 'zone' | 'mayDecide'> & { readonly undo: (id: number) => void }) {
  const open = view.trips.filter((trip) => trip.state !== 'done' && trip.state !== 'stopped');
  const planned = view.messages.filter((message) => message.state === 'planned').sort((a, b) => (a.dueAt ?? 0) - (b.dueAt ?? 0));
  const [answer] = view.messages.filter((message) => message.direction === 'in');
  const waits = answer !== undefined && answer.handledAt === null;
  const nothing = open.length + planned.length + view.deals.length + view.applications.length + view.reviews.length === 0 && !view.score;
  return (
    <>
      <div className="bar">
        <h2>What comes next</h2>
      </div>
      <Waiting view={view} answer={waits ? answer : undefined} now={now} />
      {planned.map((message) => (
        <Block
          key={message.id}
          glyph="→"
          tone="in-river"
          title={nextWords(message)}
          aside={message.dueAt === null ? '' : dayTimeText(message.dueAt, zone)}
        >
          <p className="quiet cut">{message.subject}</p>
        </Block>
      ))}
      {planned.length === 0 && answer?.reading ? (
        <Block glyph="■" tone="quiet" title="Follow-up ended">
          <p className="quiet">
            {answer.reading.kind}, {dayTimeText(answer.at, zone)}: nothing more goes out by itself
          </p>
        </Block>
      ) : null}
      <Score score={view.score} />
      <DealsAndApplications view={view} zone={zone} />
      {open.map((trip) => (
        <Block
          key={trip.id}
          glyph="≋"
          tone={trip.state === 'stuck' ? 'in-brick' : 'in-river'}
          title={<Link href={`/trips/${trip.id}`}>{trip.flowName}</Link>}
          aside={TRIP_WORDS[trip.state] ?? trip.state}
        >
          <p className="quiet">{trip.state === 'stuck' && typeof trip.stateDetail.why === 'string' ? trip.stateDetail.why : trip.says}</p>
        </Block>
      ))}
      {view.person.ownerName ? <Block glyph="☞" tone="quiet" title={view.person.ownerName} aside="looks after this person" /> : null}
      <Joined merges={view.merges} now={now} undo={mayDecide ? undo : undefined} />
      {nothing ? (
        <p className="quiet" css={placed({ padding: '8px 16px' })}>
          Nothing is planned. “Put in a flow” starts something; {plural(view.trips.length, 'trip')} before.
        </p>
      ) : null}
    </>
  );
}

type View = Props['view'];

/** What waits for a decision: messages to approve, and an answer nobody has taken care of. */
function Waiting({
  view,
  answer,
  now,
}: {
  readonly view: View;
  readonly answer: View['messages'][number] | undefined;
  readonly now: number;
}) {
  return (
    <>
      {view.reviews.map((review) => (
        <Block
          key={review.id}
          glyph="●"
          tone="in-brass"
          title="A message waits"
          aside={`${ago(review.createdAt, now)} · for ${review.who}`}
        >
          <p className="quiet">“{review.subject}”</p>
          <Button component={Link} href="/" variant="contained" sx={{ mt: 1 }}>
            Decide on the desk
          </Button>
        </Block>
      ))}
      {answer ? (
        <Block
          glyph="●"
          tone="in-brass"
          title={`Answer ${view.person.firstName ?? view.person.name}`}
          aside={`waits ${ago(answer.at, now)}`}
        >
          <p className="quiet">{answer.reading?.quote ? `“${answer.reading.quote}”` : answer.subject}</p>
          {answer.threadId ? (
            <Button component={Link} href={`/messages/${answer.threadId}`} variant="contained" sx={{ mt: 1 }}>
              Open the conversation
            </Button>
          ) : null}
        </Block>
      ) : null}
    </>
  );
}

function Score({ score }: Pick<View, 'score'>) {
  if (!score) return null;
  return (
    <Block
      glyph="◆"
      tone="in-river"
      title={
        <Link href={`/trips/${score.tripId}`}>
          Fit {score.points} · {score.band}
        </Link>
      }
    >
      <div className="score-bar" aria-hidden>
        {score.working.map((item) => (
          <i key={item.text} css={placed({ flexGrow: item.of })}>
            <b css={placed({ width: `${item.of === 0 ? 0 : (item.points / item.of) * 100}%` })} />
          </i>
        ))}
      </div>
      <p className="quiet small">
        {score.working
          .filter((item) => item.points > 0)
          .map((item) => `${item.text} ${item.points}`)
          .join(' · ') || 'nothing earned points'}
      </p>
    </Block>
  );
}

function DealsAndApplications({ view, zone }: Pick<Props, 'view' | 'zone'>) {
  return (
    <>
      {view.deals.map((deal) => (
        <Block key={deal.id} glyph="▤" tone="quiet" title={<Link href={`/pipeline/${deal.id}`}>Deal: {deal.title}</Link>}>
          <p className="quiet">
            {deal.stage} since {dayText(deal.stageSince, zone)}
            {deal.amount === null ? '' : ` · ${deal.amount.toLocaleString('en-GB')} €`}
            {deal.ownerName ? ` · ${deal.ownerName}` : ''}
          </p>
        </Block>
      ))}
      {view.applications.map((application) => (
        <Block
          key={application.id}
          glyph="▤"
          tone="quiet"
          title={<Link href={`/openings?of=${application.openingId}`}>Applies: {application.openingName}</Link>}
        >
          <p className="quiet">
            {application.stage} since {dayText(application.stageSince, zone)}
            {application.ownerName ? ` · ${application.ownerName}` : ''}
          </p>
        </Block>
      ))}
    </>
  );
}

function Joined({ merges, now, undo }: Pick<View, 'merges'> & { readonly now: number; readonly undo: ((id: number) => void) | undefined }) {
  return (
    <>
      {merges.map((merge) => (
        <Block key={merge.id} glyph="◇" tone="in-brass" title={`Joined with ${merge.fromName}`} aside={ago(merge.at, now)}>
          <p className="quiet">
            {merge.by}{' '}
            {undo ? (
              <button
                className="linkish"
                onClick={() => {
                  undo(merge.id);
                }}
              >
                undo
              </button>
            ) : null}
          </p>
        </Block>
      ))}
    </>
  );
}
