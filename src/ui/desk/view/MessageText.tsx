/** @jsxImportSource @emotion/react */
import { Marked } from '../../kit/parts';
import type { MessageView } from '../state/types';
import { placed } from '../../kit/placed';

/** A message with its personal line underlined: what was written for this reader stands out from the fixed text. */
export function MessageText({ message }: { readonly message: Pick<MessageView, 'body' | 'personalLine'> }) {
  return (
    <div css={placed({ whiteSpace: 'pre-wrap' })}>
      <Marked text={message.body} passage={message.personalLine} as="personal" />
    </div>
  );
}
