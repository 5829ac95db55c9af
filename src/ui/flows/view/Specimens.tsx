'use client';
import { Button, Popover, TextField } from '@mui/material';
import { useEffect, useState } from 'react';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';

export interface SpecimenPerson {
  readonly id: string;
  readonly name: string;
  readonly companyName: string | null;
}

interface Props {
  readonly people: readonly SpecimenPerson[];
  readonly flowId: string;
  readonly onChange: (people: readonly SpecimenPerson[]) => void;
}

const AT_MOST = 50;

/** Who a trial is made on: chosen by search, taken out one by one. */
export function Specimens({ people, flowId, onChange }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [search, setSearch] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [found, setFound] = useState<readonly SpecimenPerson[]>([]);
  useEffect(() => {
    if (search.trim().length < 2) return;
    let current = true;
    const timer = setTimeout(() => {
      call('listPeople', { query: { search, limit: 8 } }).then(
        (page) => {
          if (current) setFound(page.items.map((person) => ({ id: person.id, name: person.name, companyName: person.companyName })));
        },
        () => {
          if (current) setFound([]);
        },
      );
    }, 200);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [search]);
  const others = search.trim().length < 2 ? [] : found.filter((person) => !people.some((chosen) => chosen.id === person.id));
  return (
    <>
      <button
        className="linkish quiet"
        style={{ textDecoration: 'none' }}
        aria-haspopup="dialog"
        onClick={(event) => {
          setAnchor(event.currentTarget);
        }}
      >
        {plural(people.length, 'specimen')} ▾
      </button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => {
          setAnchor(null);
        }}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        <div style={{ width: 340, padding: 12 }} role="dialog" aria-label="Specimens">
          <TextField
            fullWidth
            placeholder="Add somebody: name, company or e-mail"
            value={search}
            onChange={(event) => {
              setSearch(event.target.value);
            }}
            slotProps={{ htmlInput: { 'aria-label': 'Add a specimen' } }}
          />
          {others.length > 0 ? (
            <div className="options">
              {others.map((person) => (
                <button
                  key={person.id}
                  disabled={people.length >= AT_MOST}
                  onClick={() => {
                    onChange([...people, person]);
                    setSearch('');
                  }}
                >
                  <span>{person.name}</span> <span className="quiet small">{person.companyName}</span>
                </button>
              ))}
            </div>
          ) : null}
          <div style={{ maxHeight: 320, overflow: 'auto', marginTop: 8 }}>
            {people.map((person) => (
              <div key={person.id} style={{ display: 'flex', gap: 8, padding: '3px 0', borderBottom: '1px solid var(--line2)' }}>
                <span className="strong">{person.name}</span>
                <span className="quiet cut grow">{person.companyName}</span>
                <button
                  className="linkish"
                  aria-label={`Take ${person.name} out`}
                  onClick={() => {
                    onChange(people.filter((other) => other.id !== person.id));
                  }}
                >
                  take out
                </button>
              </div>
            ))}
          </div>
          {problem ? <p className="small in-brick">{problem}</p> : null}
          <Button
            sx={{ mt: 1, mr: 1 }}
            onClick={() => {
              call('suggestSpecimens', { params: { id: flowId } }).then(
                (answer) => {
                  setProblem(null);
                  onChange(answer.items);
                },
                (error: unknown) => {
                  setProblem(sayProblem(error));
                },
              );
            }}
          >
            Pick others from the newest
          </Button>
          <Button
            sx={{ mt: 1 }}
            onClick={() => {
              setAnchor(null);
            }}
          >
            Done
          </Button>
        </div>
      </Popover>
    </>
  );
}
