/** @jsxImportSource @emotion/react */
'use client';
import { useState } from 'react';
import type { TextReader, TextTrial } from '../../../api';
import { useFields } from '../../client/fields';
import { pageText } from '../../kit/format';
import { LanguageNote } from '../../kit/LanguageNote';
import Link from '../../kit/Link';
import { Marked } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { failureText } from '../state/thing';

interface Props {
  readonly trial: TextTrial | null;
  readonly trying: boolean;
  /** sends one of them to who is writing; undefined for those who may not */
  readonly onSendToMe: ((reader: TextReader) => void) | undefined;
}

/** Readers chosen to differ, as each would get the text; of all who could get it, who would not and why. */
export function Readers({ trial, trying, onSendToMe }: Props) {
  const fields = useFields();
  const [open, setOpen] = useState<string | null>(null);
  if (!trial) return <p className="quiet">Writing to readers …</p>;
  const labelOf = (key: string): string => (fields.of('company', key) ?? fields.of('person', key))?.label ?? key;
  return (
    <>
      <h2 className="side-head">
        {trial.readers.length === 0 ? 'No readers' : `${trial.readers.length} readers`}{' '}
        <span className="quiet small" role="status">
          {trying ? 'writing …' : 'chosen to differ: wording, kind of fact, what fails'}
        </span>
      </h2>
      {trial.readers.length === 0 ? (
        <p className="quiet small">Nobody on record has an address yet: take in a list, or send a form round.</p>
      ) : null}
      <div className="readers">
        {trial.readers.map((reader) => (
          <Card
            key={reader.id}
            reader={reader}
            restsOn={reader.restsOn ? labelOf(reader.restsOn.field) : ''}
            isOpen={open === reader.id}
            onSendToMe={onSendToMe}
            onOpen={() => {
              setOpen(open === reader.id ? null : reader.id);
            }}
          />
        ))}
      </div>
      {trial.of > 0 ? (
        <>
          <h2 className="side-head">
            Of {trial.of.toLocaleString('en-GB')} who could get it{' '}
            <span className="quiet small">
              {trial.isSample ? 'a sample' : 'all who have an address'}, of {trial.all.toLocaleString('en-GB')} people
            </span>
          </h2>
          <div className="pass-bar" role="img" aria-label={`${trial.passed} of ${trial.of} pass every check`}>
            <i css={placed({ width: `${(trial.passed / trial.of) * 100}%` })} />
          </div>
          <p className="in-moss">
            ✓ <span className="strong">{trial.passed.toLocaleString('en-GB')}</span> pass every check
          </p>
          <table className="plain">
            <tbody>
              {trial.failed.map((each) => (
                <tr key={each.id}>
                  <td className="in-brick" css={placed({ whiteSpace: 'nowrap' })}>
                    ■ {each.n} {failureText(each.id)}
                  </td>
                  <td className="quiet small">
                    {each.names.join(', ')}
                    {each.n > each.names.length ? ` and ${each.n - each.names.length} more` : ''}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      ) : null}
    </>
  );
}

interface CardProps extends Pick<Props, 'onSendToMe'> {
  readonly reader: TextReader;
  readonly restsOn: string;
  readonly isOpen: boolean;
  readonly onOpen: () => void;
}

function Card({ reader, restsOn, isOpen, onOpen, onSendToMe }: CardProps) {
  return (
    <div className={isOpen ? 'on' : ''}>
      <div>
        <button className="name" aria-expanded={isOpen} onClick={onOpen}>
          {reader.name}
        </button>
        <div className="quiet small">{reader.company}</div>
        <div className={`small ${reader.passed ? 'in-moss' : 'in-brick'}`}>{reader.passed ? '✓ passes' : '■ stopped'}</div>
        <LanguageNote language={reader.language} fallback={reader.fallback} />
      </div>
      <div>
        {reader.line === null ? null : <div lang={reader.language}>{reader.line}</div>}
        {reader.restsOn ? (
          <div className="small">
            <span className="strong">{restsOn}</span>{' '}
            {reader.restsOn.quote ? <span className="quote">“{reader.restsOn.quote}”</span> : null}{' '}
            <span className="quiet">{reader.restsOn.url ? pageText(reader.restsOn.url) : reader.restsOn.source}</span>
          </div>
        ) : null}
        {reader.wrong.map((check) => (
          <div key={check.id} className="small in-brick">
            ✕ {check.says}
          </div>
        ))}
        {isOpen ? (
          <>
            <p className="small" css={placed({ margin: '8px 0 0' })}>
              <span className="quiet">subject</span> <span className="strong">{reader.subject}</span>
            </p>
            <p className="as-read" lang={reader.language}>
              <Marked text={reader.body} passage={reader.line} as="personal" />
            </p>
            <p className="small">
              <Link href={`/records/people/${reader.id}`}>the record</Link>
              {onSendToMe ? (
                <>
                  {' '}
                  ·{' '}
                  <button
                    className="linkish"
                    onClick={() => {
                      onSendToMe(reader);
                    }}
                  >
                    send me this one
                  </button>
                </>
              ) : null}
            </p>
          </>
        ) : null}
      </div>
    </div>
  );
}
