/** @jsxImportSource @emotion/react */
'use client';
import Link from '../../kit/Link';
import { placed } from '../../kit/placed';

const TABS = [
  ['conversations', 'Conversations', '/messages'],
  ['template', 'Texts', '/messages/texts'],
  ['plan', 'Plans', '/messages/plans'],
  ['answer', 'Answers', '/messages/answers'],
  ['rules', 'Hold or send', '/messages/rules'],
  ['statements', 'Said of ourselves', '/messages/statements'],
] as const;

/** The parts of Messages. */
export function MessageTabs({ on }: { readonly on: (typeof TABS)[number][0] }) {
  return (
    <nav className="tabs" aria-label="Messages" css={placed({ alignSelf: 'flex-end' })}>
      {TABS.map(([id, label, href]) => (
        <Link key={id} href={href} className={id === on ? 'on' : ''} aria-current={id === on ? 'page' : undefined}>
          {label}
        </Link>
      ))}
    </nav>
  );
}
