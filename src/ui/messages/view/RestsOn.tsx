import type { AnswerDraftView } from '../../../api';
import { pageText } from '../../kit/format';
import { checksText, lettered, lettersOf } from '../state/answer';

/** What each sentence of a draft rests on, what was left out, and what was looked at. */
export function RestsOn({ draft }: { readonly draft: AnswerDraftView }) {
  const all = lettered(draft);
  const checks = checksText(draft.checks);
  const held = draft.sentences.filter(({ rests }) => rests.length > 0);
  return (
    <div className="rests">
      {held.map(({ text, rests }) => (
        <p key={text} className="small held">
          {text} <sup className="strong in-river">{lettersOf(rests, all)}</sup>
        </p>
      ))}
      {all.length > 0 ? (
        <dl className="small">
          {all.map(({ letter, rest }) => (
            <div key={letter}>
              <dt className="strong in-river">{letter}</dt>
              <dd>{rest.kind === 'fact' ? `${rest.label} ${rest.value}` : rest.says}</dd>
              <dd className="quiet">
                {rest.kind === 'fact'
                  ? rest.url
                    ? pageText(rest.url)
                    : rest.source
                  : `ours${rest.proof === '' ? '' : ` · ${rest.proof}`}`}
              </dd>
            </div>
          ))}
        </dl>
      ) : null}
      {draft.leftOut.map((left) => (
        <p key={left} className="small in-brass">
          left out {left}
        </p>
      ))}
      <p className={checks.failed.length === 0 ? 'small in-moss' : 'small quiet'}>
        {checks.failed.length === 0 ? '✓ ' : ''}
        {checks.line}
      </p>
      {checks.failed.map((says) => (
        <p key={says} className="small in-brick" role="alert">
          ■ {says}
        </p>
      ))}
    </div>
  );
}
