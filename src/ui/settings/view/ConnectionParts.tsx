/** @jsxImportSource @emotion/react */
'use client';
import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { slotsOf, type Provider, type ProviderProblem } from '../../../core/lookup';
import { placed } from '../../kit/placed';
import { TextArea } from '../../kit/TextArea';
import { headersIn, headersText, NEW_LATER, readWholeList } from '../state/provider';

export interface PartProps {
  readonly provider: Provider;
  /** as it was before anything was typed */
  readonly first: Provider;
  readonly isNew: boolean;
  readonly mayChange: boolean;
  readonly problems: readonly ProviderProblem[];
  readonly put: (change: Partial<Provider>) => void;
}

/** What is wrong with a part; of a new description only where something was typed. */
function Wrong({
  at,
  problems,
  isUntouched,
}: {
  readonly at: ProviderProblem['at'];
  readonly problems: readonly ProviderProblem[];
  readonly isUntouched: boolean;
}) {
  if (isUntouched) return null;
  return problems
    .filter((problem) => problem.at === at)
    .map(({ says }) => (
      <span key={says} className="small in-brick" css={placed({ display: 'block' })}>
        ■ {says}
      </span>
    ));
}

type LinePart = 'name' | 'url' | 'list' | 'value' | 'confidence' | 'next';
export function Line({
  part,
  label,
  help,
  provider,
  first,
  isNew,
  mayChange,
  problems,
  put,
}: PartProps & { readonly part: LinePart; readonly label: string; readonly help?: string }) {
  return (
    <div>
      <TextField
        fullWidth
        label={label}
        value={provider[part]}
        disabled={!mayChange || (part === 'name' && !isNew)}
        onChange={(event) => {
          put({ [part]: event.target.value });
        }}
      />
      {help ? <span className="quiet small">{help}</span> : null}
      <Wrong at={part} problems={problems} isUntouched={isNew && provider[part] === first[part]} />
    </div>
  );
}

/** Method, address, headers and body. */
export function AskedBy(props: PartProps) {
  const { provider, mayChange, problems, put } = props;
  return (
    <>
      <div css={placed({ display: 'grid', gridTemplateColumns: '110px minmax(0, 1fr)', gap: 10 })}>
        <TextField
          select
          label="asked by"
          value={provider.method}
          disabled={!mayChange}
          onChange={(event) => {
            put({ method: event.target.value === 'POST' ? 'POST' : 'GET' });
          }}
        >
          <MenuItem value="GET">GET</MenuItem>
          <MenuItem value="POST">POST</MenuItem>
        </TextField>
        <Line
          {...props}
          part="url"
          label="address"
          help={`put in: ${slotsOf(provider)
            .map((slot) => `{${slot}}`)
            .join(' ')}`}
        />
      </div>
      <TextArea
        label="headers, one a line"
        shown
        rows={2}
        value={headersText(provider.headers)}
        disabled={!mayChange}
        onChange={(text) => {
          put({ headers: headersIn(text) });
        }}
      />
      <Wrong at="headers" problems={problems} isUntouched={false} />
      {provider.method === 'POST' ? (
        <div>
          <TextArea
            label="body, as JSON"
            shown
            value={provider.body}
            disabled={!mayChange}
            onChange={(body) => {
              put({ body });
            }}
          />
          <Wrong at="body" problems={problems} isUntouched={false} />
        </div>
      ) : null}
    </>
  );
}

/** At once, or later to who comes again with a ticket. */
export function WhenItAnswers({ provider, mayChange, problems, put }: PartProps) {
  const { later } = provider;
  const change = (part: Partial<NonNullable<Provider['later']>>): void => {
    put({ later: { ...(later ?? NEW_LATER), ...part } });
  };
  const text = (part: 'ticket' | 'url' | 'state' | 'ready' | 'failed', label: string) => (
    <div>
      <TextField
        fullWidth
        label={label}
        value={later?.[part] ?? ''}
        disabled={!mayChange}
        onChange={(event) => {
          change({ [part]: event.target.value });
        }}
      />
      <Wrong at={`later.${part}`} problems={problems} isUntouched={later?.[part] === ''} />
    </div>
  );
  const seconds = (part: 'everyS' | 'atMostS', label: string, most: number) => (
    <TextField
      label={label}
      type="number"
      value={later?.[part] ?? 0}
      disabled={!mayChange}
      slotProps={{ htmlInput: { min: 1, max: most } }}
      onChange={(event) => {
        change({ [part]: Math.min(most, Math.max(1, Math.round(Number(event.target.value)) || 1)) });
      }}
    />
  );
  return (
    <div css={placed({ display: 'grid', gap: 8 })}>
      <FormControlLabel
        label="it gives a ticket first, and the answer later"
        disabled={!mayChange}
        control={
          <Checkbox
            checked={later !== null}
            onChange={(event) => {
              put({ later: event.target.checked ? NEW_LATER : null });
            }}
          />
        }
      />
      {later ? (
        <div css={placed({ display: 'grid', gridTemplateColumns: 'repeat(4, minmax(0, 1fr))', gap: 10 })}>
          <div css={placed({ gridColumn: 'span 4' })}>{text('url', 'collected at, with {ticket}')}</div>
          {text('ticket', 'the ticket stands at')}
          {text('state', 'how far it is stands at')}
          {text('ready', 'ready when it says')}
          {text('failed', 'given up when it says')}
          {seconds('everyS', 'again after, s', 600)}
          {seconds('atMostS', 'given up after, s', 86_400)}
        </div>
      ) : null}
    </div>
  );
}

/** Where the answer stands, its list and its pages; of records, what is pointed at in the table. */
export function WhereItStands(props: PartProps) {
  const { provider, mayChange, problems, isNew, put } = props;
  const whole = readWholeList(provider);
  return (
    <div css={placed({ display: 'grid', gap: 8 })}>
      <div css={placed({ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 10 })}>
        <Line {...props} part="list" label="the list stands at" help="empty: there is one answer" />
        {provider.finds === 'value' ? <Line {...props} part="value" label="the e-mail stands at" /> : null}
        {provider.finds === 'value' ? <Line {...props} part="confidence" label="how sure it is stands at" /> : null}
      </div>
      {provider.finds === 'records' ? (
        <p className="quiet small">
          In each entry:{' '}
          {Object.entries(provider.record)
            .filter(([, at]) => at !== '')
            .map(([part, at]) => `${part} at ${at}`)
            .join(', ') || 'nothing yet; say in the table what each value is'}
        </p>
      ) : null}
      <Wrong at="record" problems={problems} isUntouched={isNew && Object.keys(provider.record).length === 0} />
      {whole && mayChange ? (
        <p className="small">
          It stands in the first entry of a list.{' '}
          <button
            className="linkish"
            type="button"
            onClick={() => {
              put(whole);
            }}
          >
            Read the whole list, and take the entry that fits the person
          </button>
        </p>
      ) : null}
      {provider.list === '' ? null : <Pages {...props} />}
    </div>
  );
}

function Pages(props: PartProps) {
  const { provider, mayChange, put } = props;
  return (
    <div css={placed({ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 10 })}>
      <TextField
        type="number"
        label="pages at most"
        value={provider.mostPages}
        disabled={!mayChange}
        slotProps={{ htmlInput: { min: 1, max: 50 } }}
        onChange={(event) => {
          put({ mostPages: Math.min(50, Math.max(1, Math.round(Number(event.target.value)) || 1)) });
        }}
      />
      <Line {...props} part="next" label="the next page stands at" help="or {page} in the address" />
      {provider.finds === 'records' ? (
        <TextField
          type="number"
          label="a page costs, cents"
          value={provider.priceMicro / 10_000}
          disabled={!mayChange}
          slotProps={{ htmlInput: { min: 0, step: 0.1 } }}
          onChange={(event) => {
            put({ priceMicro: Math.max(0, Math.round(Number(event.target.value) * 10_000) || 0) });
          }}
        />
      ) : null}
    </div>
  );
}
