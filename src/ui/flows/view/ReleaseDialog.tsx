'use client';
import { Button, Dialog } from '@mui/material';
import { plural } from '../../../core/base';
import type { Finding } from '../../../core/flow/check';
import { Notice } from '../../kit/parts';
import { differences } from '../state/differences';

interface Props {
  readonly name: string;
  readonly draft: string;
  readonly live: { readonly no: number; readonly text: string } | null;
  readonly underWay: number;
  readonly findings: readonly Finding[];
  readonly tried: boolean;
  readonly busy: boolean;
  readonly problem: string | null;
  readonly onRelease: () => void;
  readonly onClose: () => void;
}

const MARKS = {
  good: { glyph: '✓', tone: 'in-moss' },
  warning: { glyph: '◆', tone: 'in-brass' },
  error: { glyph: '■', tone: 'in-brick' },
} as const;

/** What releasing means: what is missing, what changes against the live version, what happens to trips under way. */
export function ReleaseDialog({ name, draft, live, underWay, findings, tried, busy, problem, onRelease, onClose }: Props) {
  const errors = findings.filter((finding) => finding.severity === 'error');
  const warnings = findings.length - errors.length;
  const changes = live ? differences(live.text, draft).filter((line) => line.kind !== 'same') : [];
  const points: readonly { readonly mark: keyof typeof MARKS; readonly says: string }[] = [
    errors.length === 0
      ? {
          mark: warnings === 0 ? 'good' : 'warning',
          says: warnings === 0 ? 'the checker finds nothing wrong' : `no errors · ${plural(warnings, 'warning')}`,
        }
      : { mark: 'error', says: `${plural(errors.length, 'error')}: ${errors[0]?.message ?? ''}` },
    tried
      ? { mark: 'good', says: 'tried on specimens as it stands now' }
      : { mark: 'warning', says: 'not tried since the last change: you may, but need not' },
    // The checker refuses a flow in which something leaves without an approval above it.
    { mark: 'good', says: 'every message is asked for before it goes · unsubscribe, do-not-contact and the limit per person always apply' },
  ];
  return (
    <Dialog
      open
      onClose={onClose}
      aria-labelledby="release-title"
      slotProps={{
        paper: {
          sx: {
            width: 640,
            maxWidth: '92vw',
            boxShadow: '0 12px 40px rgb(27 38 36 / 18%)',
            background: 'var(--paper)',
            color: 'var(--ink)',
            backgroundImage: 'none',
          },
        },
      }}
    >
      <div style={{ padding: 20, display: 'flex', flexDirection: 'column', gap: 14 }}>
        <h2 id="release-title" style={{ fontSize: 18, lineHeight: '24px' }}>
          {live ? `Make this draft of ${name} live ${live.no + 1}` : `Make ${name} live`}
        </h2>
        {problem ? <Notice>{problem}</Notice> : null}
        <div>
          {points.map((point) => (
            <p key={point.says} style={{ padding: '4px 0' }}>
              <span className={MARKS[point.mark].tone}>{MARKS[point.mark].glyph}</span> {point.says}
            </p>
          ))}
          {live ? (
            <p style={{ padding: '4px 0' }}>
              <span className="in-moss">✓</span>{' '}
              {underWay === 0
                ? 'no trip is under way'
                : `${plural(underWay, 'trip')} under way ${underWay === 1 ? 'finishes' : 'finish'} on live ${live.no}; records taken in from now on go through this one`}
            </p>
          ) : null}
        </div>
        {live ? (
          <div>
            <h3 className="strong">What changes against live {live.no}</h3>
            {changes.length === 0 ? (
              <p className="quiet">Nothing: the texts are the same.</p>
            ) : (
              <div
                className="diff"
                style={{ maxHeight: 220, overflow: 'auto', marginTop: 6 }}
                role="region"
                aria-label="Differences"
                tabIndex={0}
              >
                {changes.map((line, i) => (
                  <div key={i} className={line.kind}>
                    {line.kind === 'new' ? '+ ' : '− '}
                    {line.text}
                  </div>
                ))}
              </div>
            )}
          </div>
        ) : null}
        <div style={{ display: 'flex', gap: 8 }}>
          <Button variant="contained" disabled={busy || errors.length > 0} onClick={onRelease}>
            {errors.length > 0 ? 'Mend the errors first' : 'Make it live'}
          </Button>
          <Button onClick={onClose}>Back to the script</Button>
        </div>
      </div>
    </Dialog>
  );
}
