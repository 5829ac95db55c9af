/** @jsxImportSource @emotion/react */
'use client';
import { Checkbox, FormControlLabel } from '@mui/material';
import { useEffect, useState } from 'react';
import type { WordingsTried } from '../../../api';
import { plural } from '../../../core/base';
import type { MessageTemplate } from '../../../core/writer';
import { call } from '../../client';
import { placed } from '../../kit/placed';
import { Tag } from '../../kit/parts';
import { putWords, type WordingAt } from '../state/wordings';

interface Props {
  /** of the text as it is kept */
  readonly id: string;
  readonly no: number;
  readonly text: MessageTemplate;
  readonly at: WordingAt;
  readonly mayChange: boolean;
  readonly onChange: (text: MessageTemplate) => void;
}
type Item = WordingsTried['items'][number];

/** Whether the open wording is tried against the others of its language, and how far that has come. */
export function Tried({ id, no, text, at, mayChange, onChange }: Props) {
  const [items, setItems] = useState<readonly Item[]>([]);
  const isAny = (text.wordings ?? []).some(({ tried }) => tried === true);
  useEffect(() => {
    if (!isAny) return;
    let gone = false;
    call('wordingsTried', { params: { id } }).then(
      (found) => {
        if (!gone) setItems(found.items);
      },
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [id, no, isAny]);
  const isTried = at !== null && text.wordings?.[at]?.tried === true;
  const shown = items.filter((item) => (isTried ? item.triedAt === at : item.usualAt === at));
  if (at === null && shown.length === 0) return null;
  return (
    <div css={placed({ display: 'grid', gap: 6, marginBottom: 14 })}>
      {at === null ? null : (
        <FormControlLabel
          label="try it: every second reader gets it instead of the usual words of its language"
          disabled={!mayChange}
          control={
            <Checkbox
              checked={isTried}
              onChange={(event) => {
                onChange(putWords(text, at, { tried: event.target.checked }));
              }}
            />
          }
        />
      )}
      {isAny && (isTried || at === null) ? shown.map((item) => <Against key={`${item.usualAt} ${item.triedAt}`} item={item} />) : null}
      {isTried && shown.length === 0 ? <span className="quiet small">It is tried from the next version on.</span> : null}
    </div>
  );
}

const VERDICTS: Readonly<Record<Item['verdict'], readonly [tone: 'plain' | 'moss' | 'brass', says: string]>> = {
  'too few': ['plain', 'too few readers yet'],
  open: ['plain', '○ nothing shown so far'],
  usual: ['brass', 'the usual one is better'],
  tried: ['moss', '✓ the tried one is better'],
};

function Against({ item }: { readonly item: Item }) {
  const [tone, says] = VERDICTS[item.verdict];
  return (
    <div role="group" aria-label="Tried against each other" css={placed({ display: 'grid', gap: 4 })}>
      <Share name="usual" arm={item.usual} />
      <Share name="tried" arm={item.tried} />
      <span className="small quiet">
        <Tag tone={tone}>{says}</Tag> · answers worth having within a week; readers whose week is over count, edited mails do not · however
        often you look, chance is called better in no more than one trial of twenty
      </span>
    </div>
  );
}

const percent = (share: number | undefined): string => `${Math.round((share ?? 0) * 100)} %`;
function Share({ name, arm }: { readonly name: string; readonly arm: Item['usual'] }) {
  const [from = 0, to = 1] = arm.range;
  return (
    <div css={placed({ display: 'grid', gridTemplateColumns: '52px minmax(0, 1fr) 190px', gap: 10, alignItems: 'center' })}>
      <span className="small">{name}</span>
      <span css={placed({ position: 'relative', height: 8, background: 'var(--w1)', borderRadius: 4 })} aria-hidden>
        {arm.readers === 0 ? null : (
          <span
            css={placed({
              position: 'absolute',
              left: `${from * 100}%`,
              width: `${Math.max(1, (to - from) * 100)}%`,
              height: 8,
              background: 'var(--river)',
              borderRadius: 4,
            })}
          />
        )}
      </span>
      <span className="small quiet">
        {arm.good} of {plural(arm.readers, 'reader')} · {arm.readers === 0 ? 'nothing known' : `${percent(from)} to ${percent(to)}`}
      </span>
    </div>
  );
}
