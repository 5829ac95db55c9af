/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { placed } from '../../kit/placed';
import { around, letter, sayValue, type Place, type QuestionView } from '../state/teach';

const REASONS = ['planned', 'former', 'others’', 'only a part'] as const;

/** The sentences of one site that could answer, lettered, with how surely before and after. */
export function Places({
  view,
  at,
  onAt,
  onStep,
  verdict,
  onShow,
}: {
  readonly view: QuestionView;
  readonly at: number;
  readonly onAt: (at: number) => void;
  readonly onStep: (by: number) => void;
  readonly verdict: (place: Place) => 'this' | 'not' | undefined;
  readonly onShow?: ((place: Place, verdict: 'this' | 'not', reason?: string) => void) | undefined;
}) {
  const site = view.sites.find((entry) => entry.host === view.host);
  const chosen = view.places[at];
  if (!site) return <p className="quiet">Pages that were read stand here, with every sentence that could answer.</p>;
  return (
    <>
      <div className="bar ruled">
        <Button aria-label="Site before" onClick={() => onStep(-1)}>
          ‹
        </Button>
        <h2 className="grow cut">
          {site.name} <span className="quiet small">{site.host}</span>
        </h2>
        <span className="quiet small">
          {view.sites.indexOf(site) + 1} of {view.sites.length}
        </span>
        <Button aria-label="Next site" onClick={() => onStep(1)}>
          ›
        </Button>
      </div>
      {view.places.length === 0 ? (
        <p className="quiet">No sentence of its pages speaks of what is asked. Add words the question goes by: they show where to look.</p>
      ) : null}
      <ol className="places" aria-label="Sentences that could answer">
        {view.places.map((place, i) => {
          const said = verdict(place);
          const parts = around(place.says, place.value);
          return (
            <li key={`${place.url} ${place.says} ${String(place.value)}`} className={`${i === at ? 'on' : ''} ${said ?? ''}`}>
              <button className="sentence" onClick={() => onAt(i)} aria-current={i === at}>
                <b className="letter">{letter(i)}</b>
                <span className="grow">
                  {place.under === '' ? null : <span className="quiet small">{place.under} · </span>}
                  {parts ? (
                    <>
                      {parts[0]}
                      <mark>{parts[1]}</mark>
                      {parts[2]}
                    </>
                  ) : (
                    place.says
                  )}
                  {parts ? null : <span className="in-river"> → {sayValue(place.value)}</span>}
                </span>
                <span className="sure" aria-label={`${Math.round(place.before * 100)} % before, ${Math.round(place.after * 100)} % after`}>
                  <i className="was" css={placed({ width: `${place.before * 100}%` })} />
                  <i css={placed({ width: `${place.after * 100}%` })} />
                  <span>
                    {place.before.toFixed(2)} → <b>{place.after.toFixed(2)}</b>
                  </span>
                </span>
              </button>
              {said ? (
                <span className={said === 'this' ? 'in-moss small' : 'in-brick small'}>
                  {said === 'this' ? '✓ this one' : '✕ not this'}
                </span>
              ) : null}
            </li>
          );
        })}
      </ol>
      {chosen && onShow ? (
        <div className="deeds">
          <b className="letter">{letter(at)}</b>
          <Button onClick={() => onShow(chosen, 'this')}>
            This one <kbd>Y</kbd>
          </Button>
          <Button onClick={() => onShow(chosen, 'not')}>
            Not this <kbd>N</kbd>
          </Button>
          {REASONS.map((reason) => (
            <button key={reason} className="linkish" onClick={() => onShow(chosen, 'not', reason)}>
              {reason}
            </button>
          ))}
        </div>
      ) : null}
    </>
  );
}
