/** Who has a conversation, in words. */
import type { HandOverView } from '../../../api';

export const firstName = (name: string): string => name.split(' ')[0] ?? name;

export function heldText({ holder, inPlace, yours, mayAnswer }: HandOverView): string {
  if (holder === null) return 'Everybody has this conversation.';
  const standing = inPlace.length > 0;
  if (yours) return standing ? `You stand in for ${holder}, who is away.` : 'You have this conversation.';
  const place = standing ? `; ${inPlace.join(', ')} in their place` : '';
  return `${holder} has this conversation${place}${mayAnswer ? ': answering, you take it over.' : '.'}`;
}
