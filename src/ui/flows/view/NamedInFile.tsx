/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, TextField } from '@mui/material';
import { plural } from '../../../core/base';
import { Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { offersFor, valueOf } from '../state/from-file';
import type { FlowFile, Opened, Seen } from './useFromFile';

const KIND_WORDS: Readonly<Record<string, string>> = {
  template: 'text',
  chain: 'lookup chain',
  connection: 'mailbox',
  addressee: 'person, team or webhook',
};

interface Props {
  readonly file: FlowFile;
  readonly opened: Opened;
  readonly seen: Seen;
}

/** Everything a flow from a file names: whether it is here, and what is taken for it. */
export function NamedInFile({ file, opened, seen }: Props) {
  const { name, setName, rows, leftOpen } = file;
  return (
    <section className="col paper grow" aria-label="What it names" css={placed({ overflow: 'auto' })}>
      <div className="bar ruled" css={placed({ gap: 12 })}>
        <label className="strong" htmlFor="flow-name" css={placed({ whiteSpace: 'nowrap' })}>
          Its name here
        </label>
        <TextField
          id="flow-name"
          value={name}
          css={placed({ width: 240 })}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
        {opened.name === name ? null : <span className="quiet small cut">“{opened.name}” in the file</span>}
        <span className="grow" />
        {leftOpen > 0 ? (
          <span className="in-brass" css={placed({ whiteSpace: 'nowrap' })}>
            ○ {plural(leftOpen, 'name is', 'names are')} left open
          </span>
        ) : (
          <span className="in-moss" css={placed({ whiteSpace: 'nowrap' })}>
            ✓ everything it names is settled
          </span>
        )}
      </div>
      <table className="plain">
        <thead>
          <tr>
            <th>it names</th>
            <th>here</th>
            <th>what is taken</th>
            <th>named by</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ match, choice }) => (
            <NamedRow key={match.key} match={match} choice={choice} problem={seen.problems[match.key]} choose={file.choose} />
          ))}
        </tbody>
      </table>
      {rows.length === 0 ? <p className="empty">This flow names nothing that would have to be here.</p> : null}
    </section>
  );
}

type RowProps = FlowFile['rows'][number] & Pick<FlowFile, 'choose'> & { readonly problem: string | undefined };

function NamedRow({ match, choice, problem, choose }: RowProps) {
  return (
    <tr css={placed({ verticalAlign: 'top' })}>
      <td>
        <span className="quiet">{KIND_WORDS[match.kind] ?? match.kind}</span> <span className="strong">{match.name}</span>
        {match.state === 'differs' ? (
          <details className="small quiet">
            <summary>{plural(match.differences.length, 'difference')}</summary>
            {match.differences.slice(0, 12).map((line) => (
              <div key={line} className="code">
                {line}
              </div>
            ))}
            {match.differences.length > 12 ? <div>and {match.differences.length - 12} more</div> : null}
          </details>
        ) : null}
      </td>
      <td>
        {match.state === 'differs' ? (
          <Tag tone="brass">≠ another content</Tag>
        ) : match.state === 'missing' ? (
          <Tag tone={match.carried ? 'river' : 'brass'}>{match.carried ? '+ in the file only' : '○ not here'}</Tag>
        ) : (
          <Tag tone="moss">{match.state === 'same' ? '✓ the same' : '✓ there'}</Tag>
        )}
      </td>
      <td>
        {match.state === 'same' || (offersFor(match).length === 1 && choice.does === 'use') ? (
          <span className="quiet">the one here</span>
        ) : (
          <TextField
            select
            value={valueOf(choice)}
            css={placed({ width: 236 })}
            error={problem !== undefined}
            helperText={problem}
            slotProps={{ htmlInput: { 'aria-label': `What is taken for ${match.kind} ${match.name}` } }}
            onChange={(event) => {
              const offer = offersFor(match).find((entry) => entry.value === event.target.value);
              if (offer) choose(match.key, offer.choice);
            }}
          >
            {offersFor(match).map((offer) => (
              <MenuItem key={offer.value} value={offer.value}>
                {offer.label}
              </MenuItem>
            ))}
          </TextField>
        )}
      </td>
      <td className="quiet small">
        {match.by.slice(0, 3).join(', ')}
        {match.by.length > 3 ? ` and ${match.by.length - 3} more` : ''}
      </td>
    </tr>
  );
}
