/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { TeamShape } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { Empty } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: readonly TeamShape[];
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly mayChange: boolean;
}

/** Teams with their members in the order of their turns; whose turn is next, and who is passed by. */
export function Teams({ index, first, people, mayChange }: Props) {
  const router = useRouter();
  const [items, setItems] = useState(first);
  const [name, setName] = useState('');
  const { busy, said, hush, ask } = useAsk();
  const done = (asked: Promise<{ readonly items: readonly TeamShape[] }>, says: string, then?: () => void): void => {
    ask(asked, says, (next) => {
      setItems(next.items);
      then?.();
      router.refresh();
    });
  };
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">teams and turns</span>} said={said} onClose={hush}>
      <section className="col paper grow" tabIndex={0} aria-label="Teams and turns">
        {items.map((team) => (
          <Team
            key={team.name}
            team={team}
            people={people}
            busy={busy}
            mayChange={mayChange}
            onKeep={(members, says) => {
              done(call('keepTeam', { params: { name: team.name }, body: { members: [...members] } }), says);
            }}
            onDrop={() => {
              done(call('dropTeam', { params: { name: team.name } }), `The team ${team.name} is gone.`);
            }}
          />
        ))}
        {items.length === 0 ? (
          <Empty title="No team yet">A flow says “assign to north in turn” or “ask north to approve”: north is a team, made here.</Empty>
        ) : null}
        {mayChange ? (
          <form
            className="settings-line"
            aria-label="Make a team"
            onSubmit={(event) => {
              event.preventDefault();
              const made = name.trim();
              done(
                call('keepTeam', { params: { name: made }, body: { isNew: true, members: [] } }),
                `${made} is a team now: say who is in it.`,
                () => {
                  setName('');
                },
              );
            }}
          >
            <TextField
              placeholder="a new team, by name"
              value={name}
              onChange={(event) => {
                setName(event.target.value);
              }}
              slotProps={{ htmlInput: { 'aria-label': 'Name of a new team', maxLength: 60 } }}
            />
            <Button type="submit" variant="contained" disabled={busy || name.trim() === ''}>
              Make team
            </Button>
          </form>
        ) : null}
      </section>
    </SettingsFrame>
  );
}

interface TeamProps {
  readonly team: TeamShape;
  readonly people: Props['people'];
  readonly busy: boolean;
  readonly mayChange: boolean;
  readonly onKeep: (members: readonly { readonly id: string; readonly weight: number }[], says: string) => void;
  readonly onDrop: () => void;
}

function Team({ team, people, busy, mayChange, onKeep, onDrop }: TeamProps) {
  const { members } = team;
  const others = people.filter((person) => !members.some((member) => member.id === person.id));
  const plain = members.map(({ id, weight }) => ({ id, weight }));
  const move = (at: number, by: number): void => {
    const next = [...plain];
    const [taken] = next.splice(at, 1);
    if (taken) next.splice(at + by, 0, taken);
    onKeep(next, 'The order is kept.');
  };
  return (
    <section aria-label={team.name} css={placed({ borderBottom: '1px solid var(--line)' })}>
      <div className="bar">
        <h2>{team.name}</h2>
        <span className="quiet grow">
          {team.next ? `next: ${team.next.name}` : 'nobody is here to take a turn'}
          {team.next && team.next.passed.length > 0 ? `, as ${team.next.passed.join(' and ')} is away` : ''}
          {team.flows.length > 0 ? ` · used by ${team.flows.join(', ')}` : ' · no flow names it'}
        </span>
        {mayChange && team.flows.length === 0 ? (
          <Button disabled={busy} onClick={onDrop}>
            Remove
          </Button>
        ) : null}
      </div>
      {members.map((member, i) => (
        <div key={member.id} className="settings-line">
          <span className="quiet" css={placed({ width: 18 })}>
            {i + 1}
          </span>
          <span className="strong grow">
            {member.name}
            {member.isAway ? <span className="in-brass small"> away today</span> : null}
          </span>
          {mayChange ? (
            <>
              <TextField
                select
                value={member.weight}
                disabled={busy}
                onChange={(event) => {
                  const weight = Number(event.target.value);
                  onKeep(
                    plain.map((entry) => (entry.id === member.id ? { ...entry, weight } : entry)),
                    `${member.name} takes ${weight === 1 ? 'one turn' : `${weight} turns`} of each round.`,
                  );
                }}
                slotProps={{ htmlInput: { 'aria-label': `Turns of ${member.name} in a round` } }}
              >
                {[1, 2, 3, 4, 5, 6, 7, 8, 9].map((weight) => (
                  <MenuItem key={weight} value={weight}>
                    {weight === 1 ? '1 turn' : `${weight} turns`}
                  </MenuItem>
                ))}
              </TextField>
              <Button
                disabled={busy || i === 0}
                aria-label={`${member.name} earlier`}
                onClick={() => {
                  move(i, -1);
                }}
              >
                ↑
              </Button>
              <Button
                disabled={busy || i === members.length - 1}
                aria-label={`${member.name} later`}
                onClick={() => {
                  move(i, 1);
                }}
              >
                ↓
              </Button>
              <Button
                disabled={busy}
                aria-label={`${member.name} leaves ${team.name}`}
                onClick={() => {
                  onKeep(
                    plain.filter((entry) => entry.id !== member.id),
                    `${member.name} is no longer in ${team.name}.`,
                  );
                }}
              >
                Take out
              </Button>
            </>
          ) : (
            <span className="quiet">{member.weight === 1 ? '1 turn' : `${member.weight} turns`}</span>
          )}
        </div>
      ))}
      {mayChange && others.length > 0 ? (
        <div className="settings-line">
          <TextField
            select
            label={`add to ${team.name}`}
            value=""
            disabled={busy}
            sx={{ minWidth: 200 }}
            onChange={(event) => {
              const added = others.find((person) => person.id === event.target.value);
              if (added) onKeep([...plain, { id: added.id, weight: 1 }], `${added.name} is in ${team.name} now.`);
            }}
          >
            {others.map((person) => (
              <MenuItem key={person.id} value={person.id}>
                {person.name}
              </MenuItem>
            ))}
          </TextField>
        </div>
      ) : null}
    </section>
  );
}
