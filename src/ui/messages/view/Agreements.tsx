'use client';
import { agreementText, type Agreed } from '../state/rules';
import { ShareScale } from './ShareScale';

/** What people made of drafts that could have gone alone, by what was answered; where it is earned, the rule that lets them go is offered. */
export function Agreements({
  agreements,
  onOffer,
}: {
  readonly agreements: readonly Agreed[];
  readonly onOffer: ((rule: string) => void) | undefined;
}) {
  return (
    <section className="agreements" aria-label="What people made of drafts">
      <h2>What people made of drafts that could have gone</h2>
      {agreements.length === 0 ? (
        <p className="quiet">
          Nobody has decided one yet. Every draft that is covered and passes its checks counts here once a person has sent, changed or left
          it.
        </p>
      ) : null}
      {agreements.map((agreed) => (
        <div key={agreed.group} className="agreed">
          <span className="strong cut">{agreed.group}</span>
          <ShareScale share={agreed.share} from={agreed.from} to={agreed.to} few={agreed.state === 'open'} />
          <span className={agreed.state === 'earned' ? 'in-moss small' : agreed.state === 'lost' ? 'in-brick small' : 'quiet small'}>
            {agreementText(agreed)}
          </span>
          {agreed.state === 'earned' && agreed.offer !== null && onOffer ? (
            <button
              className="linkish"
              title={agreed.offer}
              onClick={() => {
                onOffer(agreed.offer ?? '');
              }}
            >
              let them go
            </button>
          ) : null}
        </div>
      ))}
    </section>
  );
}
