/** @jsxImportSource @emotion/react */
'use client';
import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import type { TextTrial, ThingTrial } from '../../../api';
import type { LinePattern, MessageTemplate } from '../../../core/writer';
import { useFields } from '../../client/fields';
import { placed } from '../../kit/placed';
import { personalOf, problemsAt } from '../state/thing';
import { placeOf, putWords, wordsAt, type WordingAt } from '../state/wordings';
import { At } from './ThingSide';

interface Props {
  readonly text: MessageTemplate;
  /** whose sentences: those of the text, or of one of its wordings */
  readonly at: WordingAt;
  readonly problems: ThingTrial['problems'];
  readonly restsOn: TextTrial['restsOn'];
  readonly mayChange: boolean;
  readonly onChange: (text: MessageTemplate) => void;
}

/** What the personal line may rest on, first that is known; and the sentences of the business it is made with. */
export function PersonalWindow({ text, at, problems, restsOn, mayChange, onChange }: Props) {
  const fields = useFields();
  const personal = { ...personalOf(text), lines: wordsAt(text, at).lines };
  const put = ({ lines, ...change }: Partial<typeof personal>): void => {
    const next = Object.keys(change).length > 0 ? { ...text, personal: { ...personalOf(text), ...change } } : text;
    onChange(lines ? putWords(next, at, { lines }) : next);
  };
  const labelOf = (key: string): string => (fields.of('company', key) ?? fields.of('person', key))?.label ?? key;
  const free = [...fields.all('company'), ...fields.all('person')].filter((field) => !personal.fields.includes(field.key));
  return (
    <>
      <div className="head-row">
        <h2>Personal line</h2>
        <span className="quiet small">rests on the first of these that is known of a reader; never the same as in the last ten</span>
      </div>
      <RestsOn personal={personal} put={put} labelOf={labelOf} problems={problems} mayChange={mayChange} restsOn={restsOn} />
      {mayChange ? (
        <div css={placed({ display: 'flex', gap: 16, alignItems: 'center', margin: '6px 0 10px' })}>
          <TextField
            select
            value=""
            onChange={(event) => {
              put({ fields: [...personal.fields, event.target.value] });
            }}
            slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': 'May rest on' } }}
          >
            <MenuItem value="" disabled>
              may rest on …
            </MenuItem>
            {free.map((field) => (
              <MenuItem key={`${field.record} ${field.key}`} value={field.key}>
                {field.label}
              </MenuItem>
            ))}
          </TextField>
          <FormControlLabel
            control={
              <Checkbox
                size="small"
                checked={personal.required}
                onChange={(event) => {
                  put({ required: event.target.checked });
                }}
              />
            }
            label="who has none is stopped"
          />
        </div>
      ) : null}
      <At problems={problems.filter((problem) => problem.at === 'personal')} />
      {personal.lines.length > 0 ? (
        <Sentences personal={personal} put={put} labelOf={labelOf} problems={problems} mayChange={mayChange} at={at} />
      ) : personal.fields.length > 0 ? (
        <p className="quiet small">Without sentences of yours, plain ones quote what their site says, in the reader’s language.</p>
      ) : null}
      {mayChange && personal.fields.length > 0 ? (
        <div className="pieces">
          <span className="quiet">a new sentence on:</span>
          {personal.fields.map((key) => (
            <button
              key={key}
              className="linkish"
              onClick={() => {
                put({ lines: [...personal.lines, { field: key, says: `Your site says: {value}.`, when: '' }] });
              }}
            >
              {labelOf(key)}
            </button>
          ))}
        </div>
      ) : null}
    </>
  );
}

type Personal = ReturnType<typeof personalOf>;
interface PartProps extends Pick<Props, 'problems' | 'mayChange'> {
  readonly personal: Personal;
  readonly put: (change: Partial<Personal>) => void;
  readonly labelOf: (key: string) => string;
}

/** The fields the line may rest on, in their order. */
function RestsOn({ personal, put, labelOf, problems, mayChange, restsOn }: PartProps & Pick<Props, 'restsOn'>) {
  return (
    <ol css={placed({ margin: 0, paddingLeft: 20, lineHeight: 1.8 })}>
      {personal.fields.map((key, i) => (
        <li key={key}>
          <span className="strong">{labelOf(key)}</span>{' '}
          <span className="quiet small">{restsOn.find((each) => each.field === key)?.n ?? 0} readers</span>{' '}
          {mayChange ? (
            <>
              {i > 0 ? (
                <button
                  className="linkish small"
                  aria-label={`${labelOf(key)} earlier`}
                  onClick={() => {
                    const next = [...personal.fields];
                    next.splice(i, 1);
                    next.splice(i - 1, 0, key);
                    put({ fields: next });
                  }}
                >
                  earlier
                </button>
              ) : null}{' '}
              <button
                className="linkish small"
                aria-label={`Take out ${labelOf(key)}`}
                onClick={() => {
                  put({ fields: personal.fields.filter((each) => each !== key) });
                }}
              >
                take out
              </button>
            </>
          ) : null}
          <At problems={problemsAt(problems, `personal.fields.${i}`)} />
        </li>
      ))}
    </ol>
  );
}

/** The sentences of the business, each resting on a field. */
function Sentences({ personal, put, labelOf, problems, mayChange, at }: PartProps & Pick<Props, 'at'>) {
  const line = (i: number, change: Partial<LinePattern> | null): void => {
    put({ lines: personal.lines.flatMap((each, k) => (k !== i ? [each] : change ? [{ ...each, ...change }] : [])) });
  };
  return (
    <table className="plain criteria">
      <thead>
        <tr>
          <th css={placed({ width: 130 })}>rests on</th>
          <th>
            a sentence, with {'{value}'}, {'{quote}'} or {'{day}'}
          </th>
          <th css={placed({ width: 120 })}>only when</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {personal.lines.map((pattern, i) => (
          <tr key={i}>
            <td>{labelOf(pattern.field)}</td>
            <td>
              <textarea
                className="bare"
                css={placed({ width: '100%', resize: 'vertical' })}
                rows={2}
                aria-label={`Sentence ${i + 1}`}
                value={pattern.says}
                disabled={!mayChange}
                onChange={(event) => {
                  line(i, { says: event.target.value });
                }}
              />
              <At problems={problemsAt(problems, placeOf(at, `lines.${i}`))} />
            </td>
            <td>
              <input
                className="bare mono"
                aria-label={`Condition of sentence ${i + 1}`}
                placeholder="always"
                value={pattern.when}
                disabled={!mayChange}
                onChange={(event) => {
                  line(i, { when: event.target.value });
                }}
              />
            </td>
            <td className="right">
              {mayChange ? (
                <button
                  className="linkish small"
                  aria-label={`Take out sentence ${i + 1}`}
                  onClick={() => {
                    line(i, null);
                  }}
                >
                  take out
                </button>
              ) : null}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
