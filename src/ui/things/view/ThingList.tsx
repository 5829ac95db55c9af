/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ThingSummary } from '../../../api';
import { plural } from '../../../core/base';
import type { ThingKind } from '../../../core/things';
import { call, sayProblem } from '../../client';
import { agoText } from '../../kit/format';
import Link from '../../kit/Link';
import { Empty, GoRow, Said, Tag, TopBar, type SaidText } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { copyName, KIND_WORDS, usersText } from '../state/thing';
import { MessageTabs } from './MessageTabs';

interface Props {
  readonly kind: ThingKind;
  readonly items: readonly ThingSummary[];
  readonly now: number;
  readonly mayChange: boolean;
}

/** Every named thing of a kind: what uses it, what is wrong with it, who changed it last; new ones are begun here. */
export function ThingList({ kind, items, now, mayChange }: Props) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<SaidText | null>(null);
  const words = KIND_WORDS[kind];
  const make = (wanted: string, from?: string): void => {
    setBusy(true);
    call('makeThing', { body: { kind, name: wanted, ...(from !== undefined && { from }) } }).then(
      (made) => {
        router.push(`${words.href}/${made.id}`);
      },
      (error: unknown) => {
        setBusy(false);
        setSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  const inUse = items.filter((item) => !item.retired);
  return (
    <>
      <TopBar
        title={kind === 'template' || kind === 'plan' ? 'Messages' : words.many}
        tags={
          kind === 'template' || kind === 'plan' ? (
            <MessageTabs on={kind} />
          ) : (
            <span className="quiet">{plural(inUse.length, words.one)}</span>
          )
        }
      >
        {mayChange ? (
          <form
            css={placed({ display: 'flex', gap: 8 })}
            onSubmit={(event) => {
              event.preventDefault();
              if (name.trim() !== '') make(name.trim());
            }}
          >
            <TextField
              placeholder={`a new ${words.one}, by name`}
              value={name}
              onChange={(event) => {
                setName(event.target.value);
              }}
              slotProps={{ htmlInput: { 'aria-label': `Name of a new ${words.one}`, maxLength: 80 } }}
            />
            <Button type="submit" variant="contained" disabled={busy || name.trim() === ''}>
              Begin
            </Button>
          </form>
        ) : null}
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <div className="cols">
        <section className="col paper grow" tabIndex={0} aria-label={words.many}>
          {items.length === 0 ? (
            <Empty title={`No ${words.one} yet`}>{words.empty}</Empty>
          ) : (
            <table className="plain">
              <thead>
                <tr>
                  <th>{words.one}</th>
                  <th>used by</th>
                  <th>to look at</th>
                  <th className="right">version</th>
                  <th>changed</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {items.map((item) => (
                  <GoRow key={item.id} href={`${words.href}/${item.id}`}>
                    <td>
                      <Link href={`${words.href}/${item.id}`} className="strong">
                        {item.name}
                      </Link>{' '}
                      {item.retired ? <Tag>retired</Tag> : null}
                    </td>
                    <td className={item.uses.length === 0 ? 'quiet' : ''} title={item.uses.map((use) => use.name).join(', ')}>
                      {usersText(item)}
                      {item.uses.some((use) => use.behind) ? <span className="in-brass"> · live with an older one</span> : null}
                    </td>
                    <td className={item.problems.some((problem) => problem.weight === 'error') ? 'in-brick' : 'in-brass'}>
                      {item.problems.length === 0 ? (
                        <span className="in-moss">✓ nothing</span>
                      ) : (
                        `■ ${plural(item.problems.length, 'thing')}`
                      )}
                    </td>
                    <td className="right">{item.no}</td>
                    <td className="quiet">
                      {item.savedBy === null
                        ? 'as it came'
                        : `${item.savedBy}${item.savedAt === null ? '' : `, ${agoText(Date.parse(item.savedAt), now)}`}`}
                    </td>
                    <td className="right">
                      {mayChange ? (
                        <button
                          className="linkish"
                          disabled={busy}
                          onClick={(event) => {
                            event.stopPropagation();
                            make(
                              copyName(
                                item.name,
                                items.map((other) => other.name),
                              ),
                              item.id,
                            );
                          }}
                          aria-label={`Copy ${item.name}`}
                        >
                          copy
                        </button>
                      ) : null}
                    </td>
                  </GoRow>
                ))}
              </tbody>
            </table>
          )}
        </section>
      </div>
    </>
  );
}
