/** What an answer is: a main kind goes to what must be acted on first. */
export type ReplyKind =
  | 'interested'
  | 'question'
  | 'objection'
  | 'not now'
  | 'wrong person'
  | 'moved job'
  | 'already customer'
  | 'decline'
  | 'angry'
  | 'unsubscribe'
  | 'out of office'
  | 'automatic receipt'
  | 'bounce'
  | 'soft bounce'
  | 'complaint'
  | 'delayed'
  | 'read receipt'
  | 'meeting accepted'
  | 'meeting declined'
  | 'thanks'
  | 'bulk'
  | 'spam'
  | 'unclear';

/** What an objection is about. */
export type Objection = 'price' | 'timing' | 'authority' | 'need' | 'competitor' | 'trust';
