/** @jsxImportSource @emotion/react */
'use client';
import { useFields } from '../../client/fields';
import Link from '../../kit/Link';
import type { ReactNode } from 'react';
import { SOURCE_LABELS } from '../../../core/facts';
import { printValue } from '../../../core/fields';
import { plural } from '../../../core/base';
import { euro, pageText, scalarText } from '../../kit/format';
import { LanguageNote } from '../../kit/LanguageNote';
import { Marked, Meter, Tag } from '../../kit/parts';
import {
  askedOf,
  bandText,
  evidenceOf,
  factFor,
  findingsOf,
  textsIn,
  touchesOf,
  valueBefore,
  workingOf,
  writtenOf,
} from '../state/specimen';
import type { Entry, ShownFact, SpecimenTrip } from '../state/types';
import { placed } from '../../kit/placed';

interface Props {
  readonly trip: SpecimenTrip;
  readonly entry: Entry;
  readonly verb: string;
}

/** What the record looked like before and after a line, and why: per verb what matters there. */
export function AtLine({ trip, entry, verb }: Props) {
  switch (verb) {
    case 'score':
      return <Scored trip={trip} entry={entry} />;
    case 'read':
      return <WasRead trip={trip} entry={entry} />;
    case 'match':
      return <Matched entry={entry} />;
    case 'look up':
      return <LookedUp trip={trip} entry={entry} />;
    case 'write':
      return <Written entry={entry} />;
    case 'reply':
      return <Replied entry={entry} />;
    case 'follow up':
      return <FollowedUp entry={entry} />;
    default:
      return <Plain entry={entry} />;
  }
}

function Source({ fact, lead }: { readonly fact: ShownFact; readonly lead?: string }) {
  return (
    <div className="fact-line">
      {lead ? (
        <>
          <span className="strong" css={placed({ color: 'var(--ink)' })}>
            {lead}
          </span>{' '}
          ·{' '}
        </>
      ) : null}
      {fact.quote ? <span className="quote">“{fact.quote}”</span> : null}{' '}
      {fact.url ? <span title={fact.url}>{pageText(fact.url)}</span> : `${SOURCE_LABELS[fact.source]} · ${fact.sourceRef}`}
      {fact.confidence < 0.6 ? <span className="in-brass"> · not sure</span> : null}
    </div>
  );
}

const Says = ({ children }: { readonly children: ReactNode }) => (
  <p className="quiet" css={placed({ padding: '2px 0 6px' })}>
    {children}
  </p>
);

function Scored({ trip, entry }: Omit<Props, 'verb'>) {
  const fields = useFields();
  const { points, of, band, out, disqualifiedBy } = entry.detail;
  return (
    <>
      <div css={placed({ display: 'flex', alignItems: 'baseline', gap: 10, padding: '0 0 8px' })}>
        <span css={placed({ fontSize: 22, fontWeight: 640, lineHeight: '28px' })}>{scalarText(points)}</span>
        <span className="quiet">of {scalarText(of)} points</span>
        <Tag tone={out === true ? 'brick' : band === 'hot' ? 'moss' : 'plain'}>{bandText(scalarText(band))}</Tag>
        {Array.isArray(disqualifiedBy) && disqualifiedBy.length > 0 ? <span className="in-brick">{disqualifiedBy.join(', ')}</span> : null}
      </div>
      {workingOf(entry).map((criterion) => {
        const facts = criterion.reads.map((path) => factFor(trip, path)).filter((fact) => fact !== undefined);
        return (
          <div key={criterion.text} css={placed({ padding: '4px 0' })}>
            <div css={placed({ display: 'flex', alignItems: 'center', gap: 12 })}>
              <span className="grow">{criterion.text}</span>
              <Meter share={criterion.of === 0 ? 0 : criterion.points / criterion.of} />
              <span className="right" css={placed({ width: 64 })}>
                <span className={criterion.points === 0 ? 'in-brass' : 'strong'}>{criterion.points}</span>{' '}
                <span className="quiet small">of {criterion.of}</span>
              </span>
            </div>
            {criterion.state === 'unknown' ? (
              <div className="fact-line in-brass">
                unknown: {criterion.points > 0 ? `${plural(criterion.points, 'point')} given for now` : 'nothing assumed'}
              </div>
            ) : null}
            {facts.map((fact) => (
              <Source key={fact.id} fact={fact} lead={printValue(fact.value, fields.of(fact.record.kind, fact.field)?.unit)} />
            ))}
          </div>
        );
      })}
    </>
  );
}

function WasRead({ trip, entry }: Omit<Props, 'verb'>) {
  return (
    <>
      <Says>{entry.says}</Says>
      {findingsOf(entry).map((finding) => {
        const before = valueBefore(trip, finding.id);
        return (
          <div key={finding.id} className="before-after">
            <span className="quiet">{finding.id.replace(/_/g, ' ')}</span>
            <span>
              <span className="quiet">{before ? printValue(before.value, finding.unit) : '–'}</span> <span aria-hidden>→</span>{' '}
              {finding.found ? (
                <span className="strong">{printValue(finding.value, finding.unit)}</span>
              ) : (
                <span className="in-brass">not found</span>
              )}
              {finding.quote ? (
                <div className="fact-line">
                  <span className="quote">“{finding.quote}”</span>{' '}
                  {finding.url ? <span title={finding.url}>{pageText(finding.url)}</span> : null}
                </div>
              ) : finding.says ? (
                <div className="fact-line">{finding.says}</div>
              ) : null}
            </span>
          </div>
        );
      })}
    </>
  );
}

function Matched({ entry }: { readonly entry: Entry }) {
  const evidence = evidenceOf(entry);
  return (
    <>
      <Says>{entry.says}</Says>
      {evidence.length > 0 ? (
        <table className="plain">
          <thead>
            <tr>
              <th>field</th>
              <th>this record</th>
              <th>{scalarText(entry.detail.otherName)}</th>
              <th>speaks</th>
            </tr>
          </thead>
          <tbody>
            {evidence.map((item) => (
              <tr key={item.field}>
                <td className="quiet">{item.field}</td>
                <td>{item.ours || '–'}</td>
                <td>{item.theirs || '–'}</td>
                <td>
                  <Tag tone={item.agrees === 'yes' ? 'moss' : item.agrees === 'no' ? 'brick' : 'brass'}>
                    {item.agrees === 'yes' ? 'for' : item.agrees === 'no' ? 'against' : 'partly'}
                  </Tag>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </>
  );
}

function LookedUp({ trip, entry }: Omit<Props, 'verb'>) {
  const before = factFor(trip, 'email');
  const asked = askedOf(entry);
  return (
    <>
      <Says>{entry.says}</Says>
      {asked.map((item, i) => (
        <div key={item.provider} className="before-after">
          <span className="quiet">
            {i + 1}. {item.provider}
          </span>
          <span>
            <span className={item.outcome === 'usable' ? 'strong' : ''}>{item.value ?? 'nothing'}</span>{' '}
            <Tag tone={item.outcome === 'usable' ? 'moss' : item.outcome === 'nothing' ? 'plain' : 'brick'}>{item.outcome}</Tag>{' '}
            <span className="quiet small">{euro(item.costMicro)}</span>
            <div className="fact-line">{item.why}</div>
          </span>
        </div>
      ))}
      {asked.length === 0 && before ? <Source fact={before} /> : null}
    </>
  );
}

/** A drafted answer, what it is made of, and what of theirs nobody has agreed an answer to. */
function Replied({ entry }: { readonly entry: Entry }) {
  const { answers, open, covered } = entry.detail;
  return (
    <>
      <Written entry={entry} />
      {textsIn(answers).map((name) => (
        <div key={name} className="fact-line">
          from the agreed answer <span className="strong">{name}</span>
        </div>
      ))}
      {textsIn(open).map((asked) => (
        <div key={asked} className="fact-line in-brass">
          nobody has agreed an answer to “{asked}”
        </div>
      ))}
      {covered === true ? <div className="fact-line in-moss">all they asked is agreed</div> : null}
    </>
  );
}

function Written({ entry }: { readonly entry: Entry }) {
  const written = writtenOf(entry);
  if (!written) return <Plain entry={entry} />;
  const failed = written.checks.filter((check) => !check.ok);
  return (
    <>
      <div css={placed({ border: '1px solid var(--line)', borderRadius: 4, padding: '8px 12px', background: 'var(--paper)' })}>
        <div className="strong" css={placed({ paddingBottom: 6 })}>
          {written.subject}
        </div>
        <div css={placed({ whiteSpace: 'pre-wrap' })}>
          <Marked text={written.body} passage={written.personalLine} as="personal" />
        </div>
      </div>
      <div css={placed({ display: 'flex', flexWrap: 'wrap', gap: 8, padding: '8px 0' })}>
        {failed.length === 0 ? (
          <Tag tone="moss" title={written.checks.map((check) => check.id).join(', ')}>
            ✓ {written.checks.length} checks
          </Tag>
        ) : (
          failed.map((check) => (
            <Tag key={check.id} tone="brick">
              ■ {check.says}
            </Tag>
          ))
        )}
        <span className="quiet small">{plural(written.body.length, 'character')}</span>
        <LanguageNote language={written.language} fallback={written.fallback} />
      </div>
      {written.facts.map((fact) => (
        <div key={fact.field} className="fact-line">
          rests on {fact.field.replace(/_/g, ' ')}{' '}
          <span className="strong" css={placed({ color: 'var(--ink)' })}>
            {printValue(fact.value)}
          </span>{' '}
          {fact.quote ? <span className="quote">“{fact.quote}”</span> : null} {fact.url ? pageText(fact.url) : null}
        </div>
      ))}
    </>
  );
}

function FollowedUp({ entry }: { readonly entry: Entry }) {
  return (
    <>
      <Says>{entry.says}</Says>
      {typeof entry.detail.threadId === 'string' ? (
        <p css={placed({ paddingBottom: 6 })}>
          <Link href={`/messages/${entry.detail.threadId}`}>The conversation, with what still goes out</Link>
        </p>
      ) : null}
      {touchesOf(entry).map((touch) => (
        <div key={`${touch.day} ${touch.byHand}`} className="before-after">
          <span className="quiet">
            {touch.day === 0 ? 'first' : `+${plural(touch.day, 'working day')}`}
            {touch.byHand === '' ? '' : ` · ${touch.byHand}`}
          </span>
          <details>
            <summary className="strong">{touch.day === 0 || touch.byHand !== '' ? touch.subject : `Re: ${touch.subject}`}</summary>
            <div css={placed({ whiteSpace: 'pre-wrap', padding: '4px 0 8px' })}>{touch.body}</div>
          </details>
        </div>
      ))}
    </>
  );
}

function Plain({ entry }: { readonly entry: Entry }) {
  const { field, value } = entry.detail;
  return (
    <>
      <p css={placed({ padding: '4px 0' })}>{entry.says}</p>
      {typeof field === 'string' ? (
        <p className="fact-line">
          {field.replace(/_/g, ' ')} → <span className="strong">{scalarText(value)}</span>
        </p>
      ) : null}
      {entry.detail.unknown === true ? (
        <p className="in-brass small">The condition was unknown, not false: a value it needs is missing.</p>
      ) : null}
    </>
  );
}
