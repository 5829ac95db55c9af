/** @jsxImportSource @emotion/react */
'use client';
import { Button, Popover, TextField } from '@mui/material';
import { useEffect, useState } from 'react';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { placed } from '../../kit/placed';

export interface SpecimenPerson {
  readonly id: string;
  readonly name: string;
  readonly companyName: string | null;
}

interface Props {
  readonly people: readonly SpecimenPerson[];
  readonly flowId: string;
  readonly about: 'person' | 'deal';
  /** what a trial's lookups may cost, in millionths of a euro */
  readonly limitMicro: number;
  readonly onLimit: (micro: number) => void;
  readonly onChange: (people: readonly SpecimenPerson[]) => void;
}

const AT_MOST = 50;

const PICKS = [
  { pick: 'typical', label: 'Typical', title: 'Whose scores lie in the middle' },
  { pick: 'odd', label: 'Odd', title: 'Whose scores lie at the edges, or who have none' },
  { pick: 'last failed', label: 'Last failed', title: 'Whose trips got stuck last' },
] as const;

async function find(about: 'person' | 'deal', search: string): Promise<readonly SpecimenPerson[]> {
  if (about === 'deal') {
    const { items } = await call('listDeals', { query: { search, limit: 8 } });
    return items.filter((deal) => deal.personId !== null).map((deal) => ({ id: deal.id, name: deal.title, companyName: deal.personName }));
  }
  const { items } = await call('listPeople', { query: { search, limit: 8 } });
  return items.map(({ id, name, companyName }) => ({ id, name, companyName }));
}

/** What a trial is made on: chosen by search, by condition, or by how trips went; taken out one by one. */
export function Specimens({ people, flowId, about, limitMicro, onLimit, onChange }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <button
        className="linkish quiet"
        css={placed({ textDecoration: 'none', whiteSpace: 'nowrap' })}
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
        <div css={placed({ width: 340, padding: 12 })} role="dialog" aria-label="Specimens">
          <AddSpecimen people={people} about={about} onChange={onChange} />
          <Chosen people={people} onChange={onChange} />
          <Picking flowId={flowId} about={about} onChange={onChange} />
          <TrialLimit limitMicro={limitMicro} onLimit={onLimit} />
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

function AddSpecimen({ people, about, onChange }: Pick<Props, 'people' | 'about' | 'onChange'>) {
  const [search, setSearch] = useState('');
  const [found, setFound] = useState<readonly SpecimenPerson[]>([]);
  useEffect(() => {
    if (search.trim().length < 2) return;
    let current = true;
    const timer = setTimeout(() => {
      find(about, search).then(
        (items) => {
          if (current) setFound(items);
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
  }, [about, search]);
  const others = search.trim().length < 2 ? [] : found.filter((person) => !people.some((chosen) => chosen.id === person.id));
  return (
    <>
      <TextField
        fullWidth
        placeholder={about === 'deal' ? 'Add a deal: title or company' : 'Add somebody: name, company or e-mail'}
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
    </>
  );
}

function Chosen({ people, onChange }: Pick<Props, 'people' | 'onChange'>) {
  return (
    <div css={placed({ maxHeight: 320, overflow: 'auto', marginTop: 8 })}>
      {people.map((person) => (
        <div key={person.id} css={placed({ display: 'flex', gap: 8, padding: '3px 0', borderBottom: '1px solid var(--line2)' })}>
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
  );
}

/** Others instead: for whom a condition holds, or picked by how trips went. */
function Picking({ flowId, about, onChange }: Pick<Props, 'flowId' | 'about' | 'onChange'>) {
  const [where, setWhere] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const choose = (ask: { readonly where?: string; readonly pick?: (typeof PICKS)[number]['pick'] }): void => {
    call('suggestSpecimens', { params: { id: flowId }, query: ask }).then(
      ({ items }) => {
        setProblem(items.length === 0 ? 'nobody like that: the specimens stay as they are' : null);
        if (items.length > 0) onChange(items);
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  return (
    <>
      {problem ? <p className="small in-brick">{problem}</p> : null}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (where.trim() !== '') choose({ where: where.trim() });
        }}
        css={placed({ marginTop: 8 })}
      >
        <TextField
          fullWidth
          placeholder={about === 'deal' ? 'where quiet_days > 7' : 'where company.employees >= 20'}
          value={where}
          onChange={(event) => {
            setWhere(event.target.value);
          }}
          slotProps={{ htmlInput: { 'aria-label': 'Specimens for which holds', className: 'mono' } }}
        />
      </form>
      <div css={placed({ display: 'flex', flexWrap: 'wrap', gap: 6, marginTop: 8 })}>
        <Button
          onClick={() => {
            choose({});
          }}
        >
          Pick others from the newest
        </Button>
        {PICKS.map(({ pick, label, title }) => (
          <Button
            key={pick}
            title={title}
            onClick={() => {
              choose({ pick });
            }}
          >
            {label}
          </Button>
        ))}
      </div>
    </>
  );
}

function TrialLimit({ limitMicro, onLimit }: Pick<Props, 'limitMicro' | 'onLimit'>) {
  const [limit, setLimit] = useState(() => (limitMicro / 1e6).toFixed(2));
  return (
    <label css={placed({ display: 'flex', alignItems: 'center', gap: 8, marginTop: 10 })}>
      <span>lookups may cost at most</span>
      <TextField
        value={limit}
        css={placed({ width: 80 })}
        error={!/^\d{1,4}([.,]\d{1,2})?$/.test(limit.trim())}
        slotProps={{
          htmlInput: { 'aria-label': 'What lookups of a trial may cost, in euros', inputMode: 'decimal', className: 'num' },
        }}
        onChange={(event) => {
          setLimit(event.target.value);
          const typed = event.target.value.trim().replace(',', '.');
          if (/^\d{1,4}(\.\d{1,2})?$/.test(typed)) onLimit(Math.round(Number(typed) * 1e6));
        }}
      />
      <span>€ a trial</span>
    </label>
  );
}
