/** @jsxImportSource @emotion/react */
'use client';
import type { ThingSummary } from '../../../api';
import { plural } from '../../../core/base';
import type { ThingKind } from '../../../core/things';
import { useMakeThing } from '../../client/use-make-thing';
import { agoText } from '../../kit/format';
import Link from '../../kit/Link';
import { NewThing } from '../../kit/NewThing';
import { Empty, GoRow, Said, Tag, TopBar } from '../../kit/parts';
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
  const words = KIND_WORDS[kind];
  const { busy, said, hush, make } = useMakeThing(words.href);
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
          <NewThing
            one={words.one}
            busy={busy}
            onName={(name) => {
              make({ kind, name });
            }}
          />
        ) : null}
      </TopBar>
      <Said said={said} onClose={hush} />
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
                        : `${item.savedBy}${item.savedAt === null ? '' : `, ${agoText(item.savedAt, now)}`}`}
                    </td>
                    <td className="right">
                      {mayChange ? (
                        <button
                          className="linkish"
                          disabled={busy}
                          onClick={(event) => {
                            event.stopPropagation();
                            const name = copyName(
                              item.name,
                              items.map((other) => other.name),
                            );
                            make({ kind, name, from: item.id });
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
