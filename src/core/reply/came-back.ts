import { plural } from '../base';

/** What became of the last mails of a mailbox. */
export interface CameBack {
  readonly sent: number;
  /** of these, mails whose address does not exist or refuses them for good */
  readonly bounced: number;
  /** of these, mails that somebody marked as unwanted at their provider */
  readonly complained: number;
}

/** So many of the last mails are looked at. */
export const LOOKED_AT = 100;
/** Above this share receiving servers begin to doubt a sender: it is said. */
const DOUBTFUL = 0.05;
/** Above this share, and from so many on, nothing more leaves until a person has looked: every further one harms all later mail. */
const TOO_MANY = { share: 0.1, least: 5 } as const;

/** Complaints weigh far more: providers count one in a thousand. */
const COMPLAINTS = { doubtful: 1, tooMany: 2 } as const;

export type Standing = 'good' | 'doubtful' | 'too many';

/** How a mailbox stands by what came back of its last mails. */
export function standingOf({ sent, bounced, complained }: CameBack): Standing {
  const share = sent === 0 ? 0 : bounced / sent;
  if ((bounced >= TOO_MANY.least && share > TOO_MANY.share) || complained >= COMPLAINTS.tooMany) return 'too many';
  return share > DOUBTFUL || complained >= COMPLAINTS.doubtful ? 'doubtful' : 'good';
}

/** “6 of the last 40 mails came back”. */
export const cameBackText = ({ sent, bounced, complained }: CameBack): string =>
  sent === 0
    ? 'nothing to count yet'
    : `${bounced} of the last ${plural(sent, 'mail')} came back${complained === 0 ? '' : `, ${complained} ${complained === 1 ? 'was' : 'were'} reported as unwanted`}`;
