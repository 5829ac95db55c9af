/** @jsxImportSource @emotion/react */
import { placed } from '../../kit/placed';
import './share-scale.css';

interface Props {
  /** shares, 0 to 1 */
  readonly share: number;
  readonly from: number;
  readonly to: number;
  /** too few to say: the dot is hollow */
  readonly few: boolean;
}

/** A share as a dot, with the range it may truly have, on a scale from none to all. */
export function ShareScale({ share, from, to, few }: Props) {
  return (
    <span className="share-scale" aria-hidden>
      <i css={placed({ left: `${from * 100}%`, width: `${(to - from) * 100}%` })} />
      <b className={few ? 'few' : ''} css={placed({ left: `${share * 100}%` })} />
    </span>
  );
}
