/** @jsxImportSource @emotion/react */
'use client';
import Link from '../../kit/Link';
import { call } from '../../client';
import type { DeskRow } from '../state/rows';
import { OpenFirst } from './OpenFirst';
import { OpenPair } from './OpenPair';
import { OpenReply } from './OpenReply';
import { OpenReview } from './OpenReview';
import { OpenStuck } from './OpenStuck';
import { OpenTask } from './OpenTask';
import { Body, Deeds, type DecisionProps } from './parts';
import { placed } from '../../kit/placed';

interface Props extends DecisionProps {
  readonly row: DeskRow;
}

/** A row opened in place: what a person needs to see for the decision, and the decision. */
export function OpenRow(props: Props) {
  const { row } = props;
  switch (row.kind) {
    case 'review':
      return <OpenReview review={row.review} {...props} />;
    case 'pair':
      return <OpenPair pair={row.pair} {...props} />;
    case 'reply':
      return <OpenReply reply={row.reply} {...props} />;
    case 'task':
      return <OpenTask key={row.id} task={row.task} {...props} />;
    case 'stuck':
      return <OpenStuck group={row.group} {...props} />;
    case 'first':
      return <OpenFirst first={row.first} {...props} />;
    case 'notice':
      return (
        <Body>
          <p css={placed({ whiteSpace: 'pre-line' })}>{row.notice.text}</p>
          <p className="small quiet">
            {row.notice.personId ? <Link href={`/records/people/${row.notice.personId}`}>{row.notice.personName}</Link> : null}
            {row.notice.tripId ? (
              <>
                {' · '}
                <Link href={`/trips/${row.notice.tripId}`}>the trip that said so</Link>
              </>
            ) : null}
          </p>
          <Deeds
            off={false}
            deeds={[
              {
                key: 'a',
                label: 'Put aside',
                main: true,
                run: () => {
                  props.decide(call('putNoticeAside', { params: { id: row.notice.id }, body: {} }));
                },
              },
            ]}
          />
        </Body>
      );
    case 'doubt':
      return (
        <Body>
          <p>
            “{row.doubt.subject}” to <Link href={`/records/people/${row.doubt.personId}`}>{row.doubt.personName}</Link> was being sent when
            the line broke. It will not be sent again unless you say that it never left: look into the Sent folder of {row.doubt.mailbox}.
          </p>
          <Deeds
            off={!props.mayDecide}
            deeds={[
              {
                key: 'a',
                label: 'It did leave',
                main: true,
                run: () => {
                  props.decide(call('settleDoubt', { params: { id: row.doubt.id }, body: { left: true } }));
                },
              },
              {
                key: 'x',
                label: 'It did not: send it',
                run: () => {
                  props.decide(call('settleDoubt', { params: { id: row.doubt.id }, body: { left: false } }));
                },
              },
            ]}
          />
        </Body>
      );
  }
}
