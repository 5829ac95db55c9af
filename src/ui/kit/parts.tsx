/** @jsxImportSource @emotion/react */
'use client';
import { Tooltip } from '@mui/material';
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import { placed } from './placed';

import type { Tone } from './tone';
export type { Tone } from './tone';

/** A word about state: always a word, the colour only helps. */
export function Tag({ tone = 'plain', children, title }: { readonly tone?: Tone; readonly children: ReactNode; readonly title?: string }) {
  const tag = <span className={`tag ${tone === 'plain' ? '' : tone}`}>{children}</span>;
  return title ? <Tooltip title={title}>{tag}</Tooltip> : tag;
}

/** How much of something, 0 to 1, as a thin bar. */
export function Meter({ share, width = 108 }: { readonly share: number; readonly width?: number }) {
  return (
    <div className="meter" css={placed({ width })} aria-hidden>
      <i css={placed({ width: `${Math.round(Math.min(1, Math.max(0, share)) * 100)}%` })} />
    </div>
  );
}

export function TopBar({
  path,
  title,
  children,
  tags,
}: {
  readonly path?: ReactNode;
  readonly title: string;
  readonly tags?: ReactNode;
  readonly children?: ReactNode;
}) {
  return (
    <header className="top">
      {path ? (
        <span className="path">
          {path} <span aria-hidden>&nbsp;/</span>
        </span>
      ) : null}
      <h1 className="cut">{title}</h1>
      {tags}
      <span className="grow" />
      {children}
    </header>
  );
}

/** Teaches what will stand here and offers the one thing to do. */
export function Empty({ title, children, action }: { readonly title: string; readonly children: ReactNode; readonly action?: ReactNode }) {
  return (
    <div className="empty">
      <h2 css={placed({ color: 'var(--ink)' })}>{title}</h2>
      <p>{children}</p>
      {action}
    </div>
  );
}

export function Notice({
  calm = false,
  children,
  onClose,
}: {
  readonly calm?: boolean;
  readonly children: ReactNode;
  readonly onClose?: () => void;
}) {
  return (
    <div className={`notice ${calm ? 'calm' : ''}`} role={calm ? 'status' : 'alert'}>
      <span className="grow">{children}</span>
      {onClose ? (
        <button className="linkish" onClick={onClose}>
          close
        </button>
      ) : null}
    </div>
  );
}

/** What went wrong last, until it is closed. */
export function Problem({ says, onClose }: { readonly says: string | null; readonly onClose: () => void }) {
  return says === null ? null : <Notice onClose={onClose}>{says}</Notice>;
}

/** Where a passage stands in a text that may have broken its lines elsewhere. */
function placeOf(text: string, passage: string): { readonly at: number; readonly length: number } {
  const words = passage.replace(/…$/, '').split(/\s+/).filter(Boolean);
  if (words.length === 0) return { at: -1, length: 0 };
  const found = new RegExp(words.map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('\\s+')).exec(text);
  return { at: found?.index ?? -1, length: found?.[0].length ?? 0 };
}

/** A text with one passage marked: what was written for this reader (`personal`), or the words that decided (`quote`). */
export function Marked({
  text,
  passage,
  as,
}: {
  readonly text: string;
  readonly passage: string | null | undefined;
  readonly as: 'personal' | 'quote';
}) {
  const { at, length } = placeOf(text, passage ?? '');
  if (at < 0) return text;
  return (
    <>
      {text.slice(0, at)}
      <span className={as} title={as === 'personal' ? 'written for this reader, from a fact' : undefined}>
        {text.slice(at, at + length)}
      </span>
      {text.slice(at + length)}
    </>
  );
}

/** A table row that leads somewhere; its name is a link to the same place, for the keyboard. */
export function GoRow({ href, children }: { readonly href: string; readonly children: ReactNode }) {
  const router = useRouter();
  return (
    <tr
      className="go"
      onClick={() => {
        router.push(href);
      }}
    >
      {children}
    </tr>
  );
}

export interface SaidText {
  readonly text: string;
  readonly calm: boolean;
}
/** What came of the last thing done, until it is closed. */
export function Said({ said, onClose }: { readonly said: SaidText | null; readonly onClose: () => void }) {
  return said ? (
    <Notice calm={said.calm} onClose={onClose}>
      {said.text}
    </Notice>
  ) : null;
}
