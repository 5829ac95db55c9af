/** @jsxImportSource @emotion/react */
'use client';
import { placed } from '../../kit/placed';
import { corrections, sayValue, tallyOf, type QuestionView, type Site } from '../state/teach';

const MARK: Readonly<Record<Site['is'], string>> = { right: '✓', wrong: '✕', missing: '○', unknown: '·' };
const TONE: Readonly<Record<Site['is'], string>> = { right: 'in-moss', wrong: 'in-brick', missing: 'quiet', unknown: 'quiet' };
const say = (outcome: Site['is'], value: Site['before']): string => (outcome === 'missing' ? 'not found' : sayValue(value));

function Bar({ sites, when }: { readonly sites: readonly Site[]; readonly when: 'was' | 'is' }) {
  const { right, wrong, missing, of } = tallyOf(sites, when);
  const share = (count: number): string => `${of === 0 ? 0 : (count / of) * 100}%`;
  return (
    <div className="tally">
      <span className="quiet">{when === 'was' ? 'kept' : 'now'}</span>
      <span className="stripe" aria-hidden>
        <i className="right" css={placed({ width: share(right) })} />
        <i className="wrong" css={placed({ width: share(wrong) })} />
      </span>
      <span>
        <b>{right}</b> right <b className={wrong > 0 ? 'in-brick' : ''}>{wrong}</b> wrong <b>{missing}</b> not found
      </span>
    </div>
  );
}

/** Before and after, site by site; sites that taught nothing are counted apart. */
export function SitesTried({
  view,
  onHost,
  onCorrections,
}: {
  readonly view: QuestionView;
  readonly onHost: (host: string) => void;
  readonly onCorrections: (() => void) | undefined;
}) {
  const open = corrections(view);
  const known = view.sites.filter((site) => site.was !== 'unknown');
  const taught = new Set(view.draft.shown.map((entry) => entry.host));
  const apart = known.filter((site) => !taught.has(site.host));
  const [before, after] = [tallyOf(apart, 'was'), tallyOf(apart, 'is')];
  const moved = view.sites.filter((site) => site.was !== site.is || sayValue(site.before) !== sayValue(site.after)).length;
  return (
    <>
      <div className="bar">
        <h2 className="grow">
          {known.length === 0 ? 'No answer is known' : `On ${known.length} ${known.length === 1 ? 'site' : 'sites'} whose answer is known`}
        </h2>
        <span className="quiet">{moved} changed</span>
      </div>
      {known.length === 0 ? (
        <p className="quiet">
          What people set by hand, confirm or answer themselves is the key here. Once some of it is on records, before and after are
          counted.
        </p>
      ) : (
        <>
          <Bar sites={known} when="was" />
          <Bar sites={known} when="is" />
          {taught.size > 0 && apart.length < known.length ? (
            <p className="quiet small">
              On the {apart.length} {apart.length === 1 ? 'site' : 'sites'} without an example of yours: {before.right} right before,{' '}
              {after.right} after, {after.wrong === 0 ? 'none' : after.wrong} wrong.
            </p>
          ) : null}
        </>
      )}
      {open.length > 0 ? (
        <p className="small">
          {open.length === 1 ? 'One answer was set by hand and is read' : `${open.length} answers were set by hand and are read`} otherwise
          or not at all.{' '}
          {onCorrections ? (
            <button className="linkish" onClick={onCorrections}>
              {open.length === 1 ? 'Show it as an example' : 'Show them as examples'}
            </button>
          ) : null}
        </p>
      ) : null}
      <table className="plain">
        <thead>
          <tr>
            <th>site</th>
            <th className="right">known</th>
            <th>kept</th>
            <th>now</th>
          </tr>
        </thead>
        <tbody>
          {view.sites.map((site) => (
            <tr key={site.host} className={`${site.host === view.host ? 'on' : ''} ${site.was !== site.is ? 'moved' : ''}`}>
              <td>
                <button className="linkish" onClick={() => onHost(site.host)}>
                  {site.name}
                </button>
                {taught.has(site.host) ? ' ✎' : ''}
              </td>
              <td className="right" title={site.knownFrom ?? undefined}>
                {sayValue(site.known)}
              </td>
              <td className={TONE[site.was]}>
                {MARK[site.was]} {say(site.was, site.before)}
              </td>
              <td className={TONE[site.is]}>
                {MARK[site.is]} {site.was === site.is && sayValue(site.before) === sayValue(site.after) ? 'same' : say(site.is, site.after)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
