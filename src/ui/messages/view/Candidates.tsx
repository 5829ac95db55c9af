/** @jsxImportSource @emotion/react */
import { useFields } from '../../client/fields';
import { Tag } from '../../kit/parts';
import { fitText, ledOn, type Candidate, type Taken } from '../state/answer';
import { ShareScale } from './ShareScale';

interface Props {
  readonly taken: readonly Taken[];
  readonly busy: boolean;
  readonly onTake: (name: string) => void;
}

/** What they said, and the answers agreed to it: those that fit first, with how often each led on. */
export function Candidates({ taken, busy, onTake }: Props) {
  const fields = useFields();
  return taken.map(({ said, by, candidates }) => (
    <div key={`${said.kind} ${said.words}`} className="taken">
      <div className="asked">
        <Tag tone={said.kind === 'objection' ? 'brick' : 'river'}>
          {said.kind === 'question' ? 'asks' : said.kind === 'objection' ? `objection · ${said.about ?? ''}` : said.about}
        </Tag>{' '}
        <span className="quiet cut" title={said.words}>
          “{said.words}”
        </span>
      </div>
      {candidates.map((candidate) => {
        const on = by?.kind === 'agreed' && by.name === candidate.name;
        return (
          <button
            key={candidate.id}
            className={on ? 'candidate on' : 'candidate'}
            aria-pressed={on}
            disabled={busy}
            onClick={() => {
              onTake(candidate.name);
            }}
          >
            <span aria-hidden>{on ? '◆' : '◇'}</span>
            <span className="strong cut">{candidate.name}</span>
            <span className={candidate.fits ? 'quiet small cut' : 'in-brass small cut'} title={fitText(candidate, fields)}>
              {fitText(candidate, fields)}
            </span>
            <LedOn candidate={candidate} />
          </button>
        );
      })}
      {by?.kind === 'statement' ? <p className="small quiet from">answered from what we say of ourselves</p> : null}
      {by === null ? <p className="small in-brass from">nothing is agreed on this: the draft says that a colleague is asked</p> : null}
    </div>
  ));
}

/** A dot with its range on a scale of shares; hollow while there were few uses. */
export function LedOn({ candidate }: { readonly candidate: Pick<Candidate, 'used' | 'led'> }) {
  const { share, from, to, few } = ledOn(candidate);
  if (candidate.used === 0) return <span className="led quiet small">not used yet</span>;
  const percent = `${Math.round(share * 100)} %`;
  return (
    <span
      className="led"
      title={`led on in ${candidate.led} of ${candidate.used}; the true share lies between ${Math.round(from * 100)} and ${Math.round(to * 100)} %, nineteen times in twenty`}
    >
      <ShareScale share={share} from={from} to={to} few={few} />
      <span className="strong">{percent}</span> <span className="quiet small">of {candidate.used}</span>
    </span>
  );
}
