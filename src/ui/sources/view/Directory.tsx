'use client';
import { Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { isFigure, printValue, readTyped, type Field } from '../../../core/fields';
import type { DirectoryHit } from '../../../core/intake';
import { call, sayProblem } from '../../client';
import { useFields } from '../../client/fields';
import { countText, pageText } from '../../kit/format';
import Link from '../../kit/Link';
import { Empty, Said, Tag, TopBar, type SaidText, type Tone } from '../../kit/parts';
import './directory.css';

const EMPTY = {
  what: 'people' as 'people' | 'companies',
  title: '',
  words: '',
  place: '',
  country: '',
  own: {} as Readonly<Record<string, string>>,
  minEmployees: '',
  order: 'name',
};
const COUNTRIES = ['GB', 'IE', 'NL', 'BE', 'DE', 'FR', 'ES', 'IT', 'PL', 'DK', 'SE'];
const BECOMES: Readonly<Record<string, readonly [Tone, string]>> = {
  new: ['moss', '+ new'],
  known: ['plain', '= known'],
  perhaps: ['brass', '? perhaps known'],
  refused: ['brick', '■ refused'],
};

interface Look {
  readonly count: number;
  readonly fresh: number;
  readonly hits: readonly (DirectoryHit & { readonly becomes: string; readonly why: string })[];
}

interface Criterion {
  readonly key: string;
  readonly least: number | null;
  readonly says: string;
}
/** What was typed for a field: the least of a figure, in its unit, or what a text holds; nothing when nothing was. */
function criterionOf(field: Field, typed: string): readonly Criterion[] {
  if (typed.trim() === '') return [];
  if (!isFigure(field)) return [{ key: field.key, least: null, says: typed.trim() }];
  const read = readTyped(field, typed);
  return read.ok && typeof read.value === 'number' ? [{ key: field.key, least: read.value, says: '' }] : [];
}
function wrongWith(field: Field, typed: string): string | undefined {
  const read = isFigure(field) && typed.trim() !== '' ? readTyped(field, typed) : undefined;
  return read && !read.ok ? read.why : undefined;
}

/** People or companies found by criteria: counted and looked at first, taken in only when asked. */
export function Directory({
  flows,
  mayTakeIn,
}: {
  readonly flows: readonly { readonly id: string; readonly name: string }[];
  readonly mayTakeIn: boolean;
}) {
  const router = useRouter();
  const [asked, setAsked] = useState(EMPTY);
  const [look, setLook] = useState<Look | null>(null);
  const [stale, setStale] = useState(false);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<SaidText | null>(null);
  const [most, setMost] = useState('25');
  const [onlyNew, setOnlyNew] = useState(true);
  const [flowId, setFlowId] = useState('');
  const isPeople = asked.what === 'people';
  const known = useFields()
    .all('company')
    .filter((entry) => entry.inDirectory);
  const { own, ...rest } = asked;
  const criteria = {
    ...rest,
    fields: known.flatMap((entry) => criterionOf(entry, own[entry.key] ?? '')),
    minEmployees: asked.minEmployees.trim() === '' ? null : Number(asked.minEmployees),
  };
  const failed = (error: unknown): void => {
    setBusy(false);
    setSaid({ calm: false, text: sayProblem(error) });
  };
  const search = (): void => {
    setBusy(true);
    call('lookInDirectory', { body: criteria }).then((found) => {
      setBusy(false);
      setStale(false);
      setLook(found);
    }, failed);
  };
  const take = (): void => {
    setBusy(true);
    call('takeFromDirectory', { body: { criteria, most: Number(most), onlyNew, flowId: flowId === '' || !isPeople ? null : flowId } }).then(
      ({ taken, known, started }) => {
        setBusy(false);
        setSaid({
          calm: true,
          text: `${isPeople ? plural(taken, 'person', 'people') : plural(taken, 'company', 'companies')} taken in${known > 0 ? `, ${known} known already` : ''}${flowId === '' ? '' : `, ${started} on the way through ${flows.find((flow) => flow.id === flowId)?.name ?? 'the flow'}`}.`,
        });
        search();
        router.refresh();
      },
      failed,
    );
  };
  const field = (key: 'title' | 'words' | 'place' | 'minEmployees', label: string, placeholder: string) => (
    <TextField
      label={label}
      placeholder={placeholder}
      value={asked[key]}
      onChange={(event) => {
        setAsked({ ...asked, [key]: event.target.value });
        setStale(true);
      }}
    />
  );
  return (
    <>
      <TopBar
        path={<Link href="/sources">Sources</Link>}
        title="Directory"
        tags={<span className="quiet">people and companies as a directory knows them; nothing is taken in by looking</span>}
      />
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <form
        className="criteria"
        onSubmit={(event) => {
          event.preventDefault();
          search();
        }}
      >
        <TextField
          select
          label="Look for"
          value={asked.what}
          onChange={(event) => {
            setAsked({ ...asked, what: event.target.value as typeof asked.what });
            setLook(null);
          }}
        >
          <MenuItem value="people">people</MenuItem>
          <MenuItem value="companies">companies</MenuItem>
        </TextField>
        {isPeople ? field('title', 'Role', 'managing director') : null}
        {field('words', 'Words in the profile', 'technical')}
        {field('place', 'Place', 'Hessle')}
        <TextField
          select
          label="Country"
          slotProps={{ select: { displayEmpty: true } }}
          value={asked.country}
          onChange={(event) => {
            setAsked({ ...asked, country: event.target.value });
            setStale(true);
          }}
        >
          <MenuItem value="">any</MenuItem>
          {COUNTRIES.map((code) => (
            <MenuItem key={code} value={code}>
              {code}
            </MenuItem>
          ))}
        </TextField>
        {known.map((entry) => (
          <TextField
            key={entry.key}
            label={isFigure(entry) ? `${entry.label} at least${entry.unit === undefined ? '' : `, ${entry.unit}`}` : entry.label}
            placeholder={entry.sample}
            error={wrongWith(entry, asked.own[entry.key] ?? '') !== undefined}
            helperText={wrongWith(entry, asked.own[entry.key] ?? '')}
            value={asked.own[entry.key] ?? ''}
            onChange={(event) => {
              setAsked({ ...asked, own: { ...asked.own, [entry.key]: event.target.value } });
              setStale(true);
            }}
          />
        ))}
        {field('minEmployees', 'People at least', '10')}
        <TextField
          select
          label="In the order of"
          value={asked.order}
          onChange={(event) => {
            setAsked({ ...asked, order: event.target.value });
            setStale(true);
          }}
        >
          <MenuItem value="name">name</MenuItem>
          {known.filter(isFigure).map((entry) => (
            <MenuItem key={entry.key} value={entry.key}>
              {entry.label}, most first
            </MenuItem>
          ))}
          <MenuItem value="newest">newest profile first</MenuItem>
        </TextField>
        <Button
          type="submit"
          variant={look === null || stale ? 'contained' : 'outlined'}
          disabled={busy || known.some((entry) => wrongWith(entry, own[entry.key] ?? '') !== undefined)}
        >
          {busy ? 'Looking …' : 'Look'}
        </Button>
      </form>
      {look === null ? (
        <Empty title="Say whom you look for">
          Every field narrows the search; left empty it asks nothing. You see how many there are and what each would become before anything
          is taken in.
        </Empty>
      ) : (
        <>
          <div className="found">
            <span className="count">{countText(look.count)}</span>
            <span>
              {isPeople ? (look.count === 1 ? 'person fits' : 'people fit') : look.count === 1 ? 'company fits' : 'companies fit'}
              <span className="quiet">
                {' '}
                · {look.fresh} of the {look.hits.length} below are not in the CRM yet
                {stale ? ' · the criteria have changed since' : ''}
              </span>
            </span>
            <span className="grow" />
            {mayTakeIn && look.count > 0 ? (
              <>
                <span>take in the first</span>
                <TextField
                  value={most}
                  onChange={(event) => {
                    setMost(event.target.value);
                  }}
                  slotProps={{ htmlInput: { 'aria-label': 'How many to take in', inputMode: 'numeric', style: { width: 44 } } }}
                />
                <FormControlLabel
                  label="only new ones"
                  control={
                    <Checkbox
                      checked={onlyNew}
                      onChange={(event) => {
                        setOnlyNew(event.target.checked);
                      }}
                    />
                  }
                />
                {isPeople ? (
                  <TextField
                    select
                    value={flowId}
                    onChange={(event) => {
                      setFlowId(event.target.value);
                    }}
                    slotProps={{ htmlInput: { 'aria-label': 'Put them in a flow' }, select: { displayEmpty: true } }}
                  >
                    <MenuItem value="">into no flow</MenuItem>
                    {flows.map((flow) => (
                      <MenuItem key={flow.id} value={flow.id}>
                        into {flow.name}
                      </MenuItem>
                    ))}
                  </TextField>
                ) : null}
                <Button variant="contained" disabled={busy || stale || !/^\d+$/.test(most) || Number(most) < 1} onClick={take}>
                  Take in
                </Button>
              </>
            ) : null}
          </div>
          <div className="cols">
            <section className="col paper grow">
              <table className="plain">
                <thead>
                  <tr>
                    <th>name</th>
                    {isPeople ? <th>role</th> : null}
                    {isPeople ? <th>company</th> : null}
                    <th>place</th>
                    {known.map((entry) => (
                      <th key={entry.key} className={isFigure(entry) ? 'right' : ''}>
                        {entry.label}
                      </th>
                    ))}
                    <th>would become</th>
                    <th>profile</th>
                  </tr>
                </thead>
                <tbody>
                  {look.hits.map((hit) => {
                    const [tone, word] = BECOMES[hit.becomes] ?? ['plain', hit.becomes];
                    return (
                      <tr key={hit.id}>
                        <td className="strong">{hit.name}</td>
                        {isPeople ? <td>{hit.title}</td> : null}
                        {isPeople ? <td>{hit.company}</td> : null}
                        <td className="quiet">{[hit.place, hit.country].filter(Boolean).join(', ')}</td>
                        {known.map((entry) => (
                          <td key={entry.key} className={isFigure(entry) ? 'right' : 'quiet'}>
                            {printValue(hit.values[entry.key], entry.unit)}
                          </td>
                        ))}
                        <td>
                          <Tag tone={tone}>{word}</Tag> <span className="small quiet">{hit.why}</span>
                        </td>
                        <td className="small">
                          {hit.url === null ? null : (
                            <a href={hit.url} target="_blank" rel="noreferrer">
                              {pageText(hit.url).split('/').at(-1)}
                            </a>
                          )}
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
              {look.count > look.hits.length ? <p className="quiet small shown">The first {look.hits.length} are shown.</p> : null}
            </section>
          </div>
        </>
      )}
    </>
  );
}
