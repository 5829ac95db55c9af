/** @jsxImportSource @emotion/react */
'use client';
import { usePathname } from 'next/navigation';
import { useRef, type ReactNode } from 'react';
import Link from '../../kit/Link';
import { Said, TopBar, type SaidText } from '../../kit/parts';
import '../../kit/form.css';
import './settings.css';

export interface IndexLine {
  readonly href: string;
  readonly label: string;
  readonly says: string;
  readonly wants: boolean;
  readonly begins: boolean;
}

/** Every group of settings with a line of how it stands; arrows go up and down. */
export function SettingsIndex({ lines }: { readonly lines: readonly IndexLine[] }) {
  const at = usePathname();
  const list = useRef<HTMLElement>(null);
  return (
    <nav
      ref={list}
      className="col settings-index"
      aria-label="Groups of settings"
      onKeyDown={(event) => {
        const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
        const links = [...(list.current?.querySelectorAll('a') ?? [])];
        const next = links[links.indexOf(document.activeElement as HTMLAnchorElement) + step];
        if (step === 0 || !next) return;
        event.preventDefault();
        next.focus();
      }}
    >
      {lines.map((line) => (
        <Link key={line.href} href={line.href} className={line.begins ? 'begins' : ''} aria-current={at === line.href ? 'page' : undefined}>
          <span className="strong">{line.label}</span>
          <span className={line.wants ? 'small in-brass' : 'small quiet'}>
            {line.wants ? '● ' : ''}
            {line.says}
          </span>
        </Link>
      ))}
    </nav>
  );
}

interface Props {
  readonly index: readonly IndexLine[];
  readonly title: string;
  readonly tags?: ReactNode;
  readonly said: SaidText | null;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A group of settings beside the index of all of them. */
export function SettingsFrame({ index, title, tags, said, onClose, children }: Props) {
  return (
    <>
      <TopBar title={title} tags={tags} />
      <Said said={said} onClose={onClose} />
      <div className="cols">
        <SettingsIndex lines={index} />
        {children}
      </div>
    </>
  );
}
