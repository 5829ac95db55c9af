/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, TextField } from '@mui/material';
import type { TextTrial } from '../../../api';
import { clip, plural } from '../../../core/base';
import type { MessageTemplate } from '../../../core/writer';
import { languageName, LANGUAGES } from '../../kit/languages';
import { placed } from '../../kit/placed';
import { addWording, dropWording, putWords, wordingName, wordsAt, type WordingAt } from '../state/wordings';

interface Props {
  readonly text: MessageTemplate;
  readonly at: WordingAt;
  readonly trial: TextTrial | null;
  readonly mayChange: boolean;
  readonly onChoose: (at: WordingAt) => void;
  readonly onChange: (text: MessageTemplate) => void;
}

/** The wordings of a text, how many readers get each, and for whom the open one is. */
export function Wordings({ text, at, trial, mayChange, onChoose, onChange }: Props) {
  const wordings = text.wordings ?? [];
  const words = wordsAt(text, at);
  const add = (language: string): void => {
    onChange(addWording(text, language));
    onChoose(wordings.length);
  };
  const gets = (place: WordingAt): string => {
    const n = trial?.wordings[place === null ? 0 : place + 1];
    return n === undefined ? '' : plural(n, 'reader');
  };
  return (
    <div css={placed({ marginBottom: 14 })}>
      <div className="pieces" role="group" aria-label="Wordings">
        {([null, ...wordings.keys()] as readonly WordingAt[]).map((place) => (
          <button
            key={String(place)}
            className={place === at ? 'linkish strong' : 'linkish'}
            aria-pressed={place === at}
            onClick={() => {
              onChoose(place);
            }}
          >
            {clip(wordingName(wordsAt(text, place)), 40)} <span className="quiet small">{gets(place)}</span>
          </button>
        ))}
        {mayChange ? (
          <TextField
            select
            value=""
            onChange={(event) => {
              add(event.target.value);
            }}
            slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': 'Another wording' } }}
          >
            <MenuItem value="" disabled>
              another wording …
            </MenuItem>
            {LANGUAGES.map(([code, name]) => (
              <MenuItem key={code} value={code}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        ) : null}
      </div>
      <Without text={text} trial={trial} mayChange={mayChange} onAdd={add} />
      <div css={placed({ display: 'flex', gap: 10, alignItems: 'center', marginTop: 8 })}>
        <TextField
          select
          label="language"
          value={words.language}
          disabled={!mayChange}
          onChange={(event) => {
            onChange(putWords(text, at, { language: event.target.value }));
          }}
          slotProps={{ htmlInput: { 'aria-label': 'Language' } }}
          css={placed({ width: 130 })}
        >
          {LANGUAGES.map(([code, name]) => (
            <MenuItem key={code} value={code}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        {at === null ? (
          <span className="quiet small">for all who read it, and for those of whom no other wording is</span>
        ) : (
          <>
            <TextField
              label="only when"
              placeholder="always"
              value={words.when}
              disabled={!mayChange}
              onChange={(event) => {
                onChange(putWords(text, at, { when: event.target.value }));
              }}
              css={placed({ flex: 1 })}
              slotProps={{ htmlInput: { 'aria-label': 'Only when', className: 'mono' } }}
            />
            {mayChange ? (
              <button
                className="linkish small"
                onClick={() => {
                  onChange(dropWording(text, at));
                  onChoose(null);
                }}
              >
                take this wording out
              </button>
            ) : null}
          </>
        )}
      </div>
    </div>
  );
}

interface WithoutProps extends Pick<Props, 'text' | 'trial' | 'mayChange'> {
  readonly onAdd: (language: string) => void;
}
/** Languages that readers read and the text has no wording in. */
function Without({ text, trial, mayChange, onAdd }: WithoutProps) {
  if (!trial || trial.without.length === 0) return null;
  return (
    <div className="small in-brass">
      Without a wording of theirs, in {languageName(text.language)}:{' '}
      {trial.without.map(({ language, n }, i) => (
        <span key={language}>
          {i > 0 ? ' · ' : ''}
          {plural(n, `${languageName(language)} reader`)}
          {mayChange ? (
            <>
              {' '}
              <button
                className="linkish small"
                aria-label={`Write it in ${languageName(language)}`}
                onClick={() => {
                  onAdd(language);
                }}
              >
                write it
              </button>
            </>
          ) : null}
        </span>
      ))}
    </div>
  );
}
