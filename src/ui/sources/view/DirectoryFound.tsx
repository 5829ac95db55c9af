import { Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { isFigure, printValue, type Field } from '../../../core/fields';
import { countText, pageText } from '../../kit/format';
import { Tag, type Tone } from '../../kit/parts';
import type { Look } from '../state/directory';
import type { DirectorySearch } from './useDirectory';

const BECOMES: Readonly<Record<string, readonly [Tone, string]>> = {
  new: ['moss', '+ new'],
  known: ['plain', '= known'],
  perhaps: ['brass', '? perhaps known'],
  refused: ['brick', '■ refused'],
};

interface Props {
  readonly search: DirectorySearch;
  readonly look: Look;
  readonly flows: readonly { readonly id: string; readonly name: string }[];
  readonly mayTakeIn: boolean;
}

/** Who was found, what each would become, and taking them in. */
export function DirectoryFound({ search, look, flows, mayTakeIn }: Props) {
  const { asked, isStale, known } = search;
  const isPeople = asked.what === 'people';
  return (
    <>
      <div className="found">
        <span className="count">
          {look.more ? 'at least ' : ''}
          {countText(look.count)}
        </span>
        <span>
          {isPeople ? (look.count === 1 ? 'person fits' : 'people fit') : look.count === 1 ? 'company fits' : 'companies fit'}
          <span className="quiet">
            {' '}
            · {look.fresh} of the {look.hits.length} below are not in the CRM yet
            {isStale ? ' · the criteria have changed since' : ''}
          </span>
        </span>
        <span className="grow" />
        {mayTakeIn && look.count > 0 ? <TakeThem search={search} flows={flows} /> : null}
      </div>
      <div className="cols">
        <section className="col paper grow">
          <Hits look={look} isPeople={isPeople} known={known} />
          {look.more || look.count > look.hits.length ? <p className="quiet small shown">The first {look.hits.length} are shown.</p> : null}
        </section>
      </div>
    </>
  );
}

/** How many of them are taken in, and where they go. */
function TakeThem({ search, flows }: Pick<Props, 'search' | 'flows'>) {
  const { asked, busy, isStale, take } = search;
  const [most, setMost] = useState('25');
  const [onlyNew, setOnlyNew] = useState(true);
  const [flowId, setFlowId] = useState('');
  const isPeople = asked.what === 'people';
  return (
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
      <Button
        variant="contained"
        disabled={busy || isStale || !/^\d+$/.test(most) || Number(most) < 1}
        onClick={() => {
          take({ most: Number(most), onlyNew, flow: isPeople ? (flows.find((flow) => flow.id === flowId) ?? null) : null });
        }}
      >
        Take in
      </Button>
    </>
  );
}

function Hits({ look, isPeople, known }: { readonly look: Look; readonly isPeople: boolean; readonly known: readonly Field[] }) {
  return (
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
  );
}
