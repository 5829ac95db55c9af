import { Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import type { OwnField } from '../../../core/fields';
import type { Draft } from '../state/fields';
import { Readings, TypeSelect } from './FieldParts';
import type { FieldChange } from './useFieldChange';

/** Kinds of record whose lists show fields as columns. */
const LISTED: Readonly<Partial<Record<OwnField['record'], string>>> = {
  company: 'a column of the list of companies',
  application: 'a column of who has applied',
};

interface Props {
  readonly change: FieldChange;
  readonly busy: boolean;
  readonly mayChange: boolean;
}
type Text = (key: keyof Draft, label: string, placeholder?: string) => React.ReactNode;

/** How a field is called and read; what a change of it would do is shown before it is done. */
export function FieldReading({ change, busy, mayChange }: Props) {
  const { field, draft, made, changed, touchesValues, put, keep, figures, setFigures } = change;
  const text: Text = (key, label, placeholder = '') => (
    <TextField
      label={label}
      placeholder={placeholder}
      disabled={!mayChange}
      value={draft[key]}
      onChange={(event) => {
        put({ [key]: event.target.value });
      }}
    />
  );
  return (
    <>
      <h3>How it is called and read</h3>
      <div className="stack">
        {text('label', 'label')}
        {text('words', 'other words for it, with commas', 'as lists and colleagues call it')}
        {field.isStandard ? null : <OwnParts change={change} mayChange={mayChange} text={text} />}
        {text('staleMonths', 'old after so many months', 'never')}
        {text('trust', 'believed first, with commas', 'found before told')}
        <FormControlLabel
          label="only owner and builders set it by hand"
          disabled={!mayChange}
          control={
            <Checkbox
              checked={draft.byBuilders}
              onChange={(event) => {
                put({ byBuilders: event.target.checked });
              }}
            />
          }
        />
        {draft.type === 'number' || draft.type === 'money' ? (
          <div className="pair">
            {text('least', 'cannot be below')}
            {text('most', 'cannot be above')}
          </div>
        ) : null}
        {touchesValues && made.ok && made.field.unit !== field.unit ? (
          <TextField
            select
            label="figures that are there"
            value={figures}
            onChange={(event) => {
              setFigures(event.target.value as 'convert' | 'keep');
            }}
          >
            <MenuItem value="convert">are told in {made.field.unit ?? 'no unit'}</MenuItem>
            <MenuItem value="keep">stay: the unit was wrong</MenuItem>
          </TextField>
        ) : null}
        <p className="small">{made.ok ? <Readings field={made.field} /> : <span className="in-brass">{made.why}</span>}</p>
        {mayChange ? (
          <Button variant="contained" disabled={!changed || !made.ok || busy} onClick={keep}>
            {touchesValues ? 'See what becomes of the values' : 'Keep'}
          </Button>
        ) : null}
      </div>
    </>
  );
}

/** What only fields of the workspace's own have: type, unit, options, where they show. */
function OwnParts({ change: { field, draft, put }, mayChange, text }: Omit<Props, 'busy'> & { readonly text: Text }) {
  return (
    <>
      {text('group', 'group')}
      {text('sample', 'sample')}
      <div className="pair">
        <TypeSelect
          value={draft.type}
          disabled={!mayChange}
          onChange={(type) => {
            put({ type });
          }}
        />
        {draft.type === 'number' || draft.type === 'money' ? text('unit', 'unit') : null}
      </div>
      {draft.type === 'choice' ? text('options', 'options, with commas') : null}
      <FormControlLabel
        label={LISTED[field.record] ?? 'a column of their list'}
        disabled={!mayChange || LISTED[field.record] === undefined}
        control={
          <Checkbox
            checked={draft.isListed}
            onChange={(event) => {
              put({ isListed: event.target.checked });
            }}
          />
        }
      />
      <FormControlLabel
        label="protected: nobody is judged by it"
        disabled={!mayChange}
        control={
          <Checkbox
            checked={draft.isProtected}
            onChange={(event) => {
              put({ isProtected: event.target.checked });
            }}
          />
        }
      />
      <FormControlLabel
        label="directories are asked by it"
        disabled={!mayChange || field.record !== 'company'}
        control={
          <Checkbox
            checked={draft.inDirectory}
            onChange={(event) => {
              put({ inDirectory: event.target.checked });
            }}
          />
        }
      />
    </>
  );
}
