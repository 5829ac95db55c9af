/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useState } from 'react';
import { dayTimeText } from '../../kit/format';
import { differences } from '../state/differences';
import { placed } from '../../kit/placed';

export interface VersionView {
  readonly id: string;
  readonly no: number;
  readonly text: string;
  readonly releasedAt: number;
  readonly releasedByName: string | null;
}

interface Props {
  readonly versions: readonly VersionView[];
  readonly liveNo: number | null;
  readonly zone: string;
  readonly mayRelease: boolean;
  readonly onReturn: (version: VersionView) => void;
}

/** Every version with its differences against the one before it; an older one is live again in one step. */
export function Versions({ versions, liveNo, zone, mayRelease, onReturn }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <div>
      {versions.map((version, i) => {
        const before = versions[i + 1];
        const changes = before ? differences(before.text, version.text).filter((line) => line.kind !== 'same') : [];
        const added = changes.filter((line) => line.kind === 'new').length;
        return (
          <div key={version.id} className="version">
            <div css={placed({ display: 'flex', gap: 10, alignItems: 'center' })}>
              <button
                className="linkish grow"
                aria-expanded={open === version.id}
                onClick={() => {
                  setOpen(open === version.id ? null : version.id);
                }}
              >
                <span className="strong">live {version.no}</span>{' '}
                <span className="quiet small">
                  {dayTimeText(version.releasedAt, zone)}
                  {version.releasedByName ? ` · ${version.releasedByName}` : ''} ·{' '}
                  {!before ? 'the first' : changes.length === 0 ? 'the same text' : `+${added} −${changes.length - added} lines`}
                </span>
              </button>
              {version.no === liveNo ? (
                <span className="tag river">now</span>
              ) : (
                <Button
                  disabled={!mayRelease}
                  onClick={() => {
                    onReturn(version);
                  }}
                >
                  Return to it
                </Button>
              )}
            </div>
            {open === version.id ? (
              <div className="diff" role="region" aria-label={`Changes of version ${version.no}`} tabIndex={0}>
                {(before ? changes : differences('', version.text)).map((line, at) => (
                  <div key={at} className={line.kind}>
                    {line.kind === 'new' ? '+ ' : '− '}
                    {line.text}
                  </div>
                ))}
              </div>
            ) : null}
          </div>
        );
      })}
      {versions.length === 0 ? <p className="quiet">None yet: this will be the first.</p> : null}
    </div>
  );
}
