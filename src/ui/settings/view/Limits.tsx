/** @jsxImportSource @emotion/react */
'use client';
import { TextField } from '@mui/material';
import { useState } from 'react';
import type { BudgetsView, MailboxShape } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { euro } from '../../kit/format';
import Link from '../../kit/Link';
import { Meter, Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { budgetText, outsideFlows, shareGone, standsAt, typedBudget, type BudgetLine } from '../state/budgets';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: BudgetsView;
  readonly boxes: readonly MailboxShape[];
  readonly mayChange: boolean;
}

const KINDS: Readonly<Record<BudgetLine['kind'], string>> = { all: '', provider: 'asked for answers', flow: 'flow' };
const monthText = (day: string): string =>
  new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`));

/** What may be spent in a month, and what keeps mail from being too much; everything that has a limit, in one place. */
export function Limits({ index, first, boxes, mayChange }: Props) {
  const [budgets, setBudgets] = useState(first);
  const { busy, said, hush, ask } = useAsk();
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">limits and budgets</span>} said={said} onClose={hush}>
      <section className="col paper grow" tabIndex={0} aria-label="Limits and budgets">
        <div className="bar ruled">
          <h2 className="grow">Spent on lookups and research in {monthText(budgets.month)}</h2>
          <span className="quiet small">
            Owners are told at four fifths. Above a budget trips wait for the next month; nothing is lost.
          </span>
        </div>
        <table className="plain">
          <thead>
            <tr>
              <th>by</th>
              <th className="right">spent</th>
              <th className="right">set aside</th>
              <th>a month at most, €</th>
              <th>stands</th>
            </tr>
          </thead>
          <tbody>
            {budgets.items.map((line) => (
              <Line
                key={`${line.kind} ${line.id} ${line.limitMicro ?? ''}`}
                line={line}
                off={!mayChange || busy}
                onLimit={(limitMicro) => {
                  const says = limitMicro === null ? 'has no limit' : `spends ${euro(limitMicro)} a month at most`;
                  ask(call('keepBudget', { body: { kind: line.kind, id: line.id, limitMicro } }), `${line.label}: ${says}.`, setBudgets);
                }}
              />
            ))}
            <tr>
              <td className="quiet">by hand and in trials</td>
              <td className="right">{euro(outsideFlows(budgets.items))}</td>
              <td colSpan={3} className="quiet small">
                counts towards everything together, and towards whom it was asked
              </td>
            </tr>
          </tbody>
        </table>
        <div className="bar ruled">
          <h2 className="grow">Mail</h2>
        </div>
        <ul className="check-steps">
          {boxes.map((box) => (
            <li key={box.name}>
              <Link href="/settings/mailboxes">{box.name}</Link> sends {box.dailyLimit} a day at most
              {box.limitToday < box.dailyLimit ? ` (${box.limitToday} today, while it is new)` : ''}, {box.minutesApart} minutes apart, and
              to one person {box.personGapDays === 0 ? 'on any day' : `not more often than every ${box.personGapDays} days`}, over all
              flows.
            </li>
          ))}
        </ul>
        <div className="bar ruled">
          <h2 className="grow">Done by hand</h2>
          <span className="quiet small">what one person is given in a day; more waits for the next working day</span>
        </div>
        <div css={placed({ display: 'flex', gap: 12, padding: '10px 16px' })}>
          {budgets.hands.map(({ channel, aDay }) => (
            <ADay
              key={`${channel} ${aDay ?? ''}`}
              channel={channel}
              aDay={aDay}
              off={!mayChange || busy}
              onKeep={(most) => {
                const says = most === null ? 'as many as come' : `${most} a day for one person at most`;
                ask(call('keepHandLimit', { body: { channel, aDay: most } }), `${HANDS[channel]}: ${says}.`, setBudgets);
              }}
            />
          ))}
        </div>
        <ul className="check-steps">
          <li className="quiet">
            What one flow takes in, sends and spends on a day is said when it is released; what a provider may cost on a day, in its lookup
            chain.
          </li>
        </ul>
      </section>
    </SettingsFrame>
  );
}

const HANDS = { call: 'Calls', 'profile note': 'Profile notes', letter: 'Letters' } as const;
interface ADayProps {
  readonly channel: keyof typeof HANDS;
  readonly aDay: number | null;
  readonly off: boolean;
  readonly onKeep: (aDay: number | null) => void;
}
/** A number, or nothing for as many as come; kept when it is left. */
function ADay({ channel, aDay, off, onKeep }: ADayProps) {
  const first = aDay === null ? '' : String(aDay);
  const [text, setText] = useState(first);
  const most = text.trim() === '' ? null : /^[1-9]\d{0,2}$/.test(text.trim()) ? Number(text) : undefined;
  const keep = (): void => {
    if (most !== undefined && most !== aDay) onKeep(most);
  };
  return (
    <TextField
      size="small"
      label={`${HANDS[channel]} a day`}
      value={text}
      disabled={off}
      placeholder="as many as come"
      error={most === undefined}
      helperText={most === undefined ? 'a number from 1 to 999, or nothing' : undefined}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: 'numeric' } }}
      onChange={(event) => {
        setText(event.target.value);
      }}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
        if (event.key === 'Escape') setText(first);
      }}
    />
  );
}

interface LineProps {
  readonly line: BudgetLine;
  readonly off: boolean;
  readonly onLimit: (limitMicro: number | null) => void;
}
function Line({ line, off, onLimit }: LineProps) {
  const [text, setText] = useState(budgetText(line.limitMicro));
  const typed = typedBudget(text);
  const share = shareGone(line);
  const { tone, says } = standsAt(line);
  const keep = (): void => {
    if (typed !== undefined && typed !== line.limitMicro) onLimit(typed);
  };
  return (
    <tr>
      <td>
        <span className="strong">{line.label}</span> <span className="quiet small">{KINDS[line.kind]}</span>
      </td>
      <td className="right">{euro(line.spentMicro)}</td>
      <td className="right quiet">{line.reservedMicro === 0 ? '' : euro(line.reservedMicro)}</td>
      <td>
        <TextField
          size="small"
          value={text}
          disabled={off}
          error={typed === undefined}
          helperText={typed === undefined ? 'an amount such as 25 or 2.50, or nothing' : undefined}
          slotProps={{ htmlInput: { 'aria-label': `A month at most for ${line.label}`, inputMode: 'decimal' } }}
          onChange={(event) => {
            setText(event.target.value);
          }}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key === 'Enter') keep();
            if (event.key === 'Escape') setText(budgetText(line.limitMicro));
          }}
        />
      </td>
      <td>
        {share === undefined ? null : <Meter share={share} />}{' '}
        {tone === 'plain' ? <span className="quiet">{says}</span> : <Tag tone={tone}>{says}</Tag>}
      </td>
    </tr>
  );
}
