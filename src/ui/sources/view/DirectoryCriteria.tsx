import { Button, MenuItem, TextField } from '@mui/material';
import { isFigure } from '../../../core/fields';
import { euro } from '../../kit/format';
import { wrongWith, type SearchService } from '../state/directory';
import type { DirectorySearch } from './useDirectory';

const COUNTRIES = ['GB', 'IE', 'NL', 'BE', 'DE', 'FR', 'ES', 'IT', 'PL', 'DK', 'SE'];

/** What to find people or companies by. */
export function DirectoryCriteria({
  asked,
  ask,
  look,
  isStale,
  busy,
  known,
  search,
  services,
}: DirectorySearch & { readonly services: readonly SearchService[] }) {
  const isPeople = asked.what === 'people';
  const isDirectory = asked.service === '';
  const price = services.find(({ name }) => name === asked.service)?.priceMicro;
  const field = (key: 'title' | 'words' | 'place' | 'minEmployees', label: string, placeholder: string) => (
    <TextField
      label={label}
      placeholder={placeholder}
      value={asked[key]}
      onChange={(event) => {
        ask({ [key]: event.target.value });
      }}
    />
  );
  return (
    <form
      className="criteria"
      onSubmit={(event) => {
        event.preventDefault();
        search();
      }}
    >
      {services.length > 0 ? (
        <TextField
          select
          label="Ask"
          slotProps={{ select: { displayEmpty: true } }}
          helperText={price === undefined ? undefined : price === 0 ? 'costs nothing' : `${euro(price)} for each page of answers`}
          value={asked.service}
          onChange={(event) => {
            ask({ service: event.target.value });
          }}
        >
          <MenuItem value="">the directory</MenuItem>
          {services.map(({ name }) => (
            <MenuItem key={name} value={name}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      ) : null}
      <TextField
        select
        label="Look for"
        value={asked.what}
        onChange={(event) => {
          ask({ what: event.target.value as typeof asked.what });
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
          ask({ country: event.target.value });
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
            ask({ own: { ...asked.own, [entry.key]: event.target.value } });
          }}
        />
      ))}
      {isDirectory ? field('minEmployees', 'People at least', '10') : null}
      {isDirectory ? <InTheOrderOf asked={asked} ask={ask} known={known} /> : null}
      <Button
        type="submit"
        variant={look === null || isStale ? 'contained' : 'outlined'}
        disabled={busy || known.some((entry) => wrongWith(entry, asked.own[entry.key] ?? '') !== undefined)}
      >
        {busy ? 'Looking …' : 'Look'}
      </Button>
    </form>
  );
}

function InTheOrderOf({ asked, ask, known }: Pick<DirectorySearch, 'asked' | 'ask' | 'known'>) {
  return (
    <TextField
      select
      label="In the order of"
      value={asked.order}
      onChange={(event) => {
        ask({ order: event.target.value });
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
  );
}
