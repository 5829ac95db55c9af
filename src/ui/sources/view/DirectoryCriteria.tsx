import { Button, MenuItem, TextField } from '@mui/material';
import { isFigure } from '../../../core/fields';
import { wrongWith } from '../state/directory';
import type { DirectorySearch } from './useDirectory';

const COUNTRIES = ['GB', 'IE', 'NL', 'BE', 'DE', 'FR', 'ES', 'IT', 'PL', 'DK', 'SE'];

/** What to find people or companies by. */
export function DirectoryCriteria({ asked, ask, look, isStale, busy, known, search }: DirectorySearch) {
  const isPeople = asked.what === 'people';
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
      {field('minEmployees', 'People at least', '10')}
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
