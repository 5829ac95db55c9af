/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, TextField } from '@mui/material';
import type { ThingView } from '../../../api';
import { plural } from '../../../core/base';
import type { Scorecard } from '../../../core/score';
import Link from '../../kit/Link';
import { placed } from '../../kit/placed';
import { mostOf, problemsAt } from '../state/thing';
import { useThing } from './useThing';
import { Criteria } from './Criteria';
import { Scores } from './Scores';
import { BenchFrame } from './BenchFrame';
import { At } from './ThingSide';

interface Props {
  readonly first: ThingView;
  readonly zone: string;
  readonly mayChange: boolean;
}

/** A scorecard with the scores it gives all records there are, and who would change band before it is kept. */
export function ScorecardBench({ first, zone, mayChange }: Props) {
  const state = useThing<Scorecard>(first);
  const { body: card, trial, set } = state;
  const found = trial?.card ?? null;
  const problems = trial?.problems ?? [];
  const most = mostOf(card);
  const records = card.target === 'company' ? 'companies' : 'people';
  return (
    <BenchFrame
      state={state}
      zone={zone}
      mayChange={mayChange}
      label="Scorecard"
      sideLabel="What it does"
      side={
        <>
          {' '}
          <h2 className="side-head">Bands</h2>
          <table className="plain">
            <thead>
              <tr>
                <th>band</th>
                <th className="right">from</th>
                <th className="right">records</th>
                <th className="right">as kept</th>
              </tr>
            </thead>
            <tbody>
              {(found?.bands ?? []).map((band) => {
                const own = card.bands.find((each) => each.name === band.name);
                return (
                  <tr key={band.name}>
                    <td className="strong">{band.name}</td>
                    <td className="right">{own ? own.from : ''}</td>
                    <td className="right">{band.n.toLocaleString('en-GB')}</td>
                    <td className={`right ${band.n === band.was ? 'quiet' : 'in-river'}`}>
                      {band.n === band.was
                        ? band.was.toLocaleString('en-GB')
                        : `${band.was.toLocaleString('en-GB')} (${band.n > band.was ? '+' : '−'}${Math.abs(band.n - band.was)})`}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {found && found.moved.n > 0 ? (
            <>
              <h2 className="side-head">
                {plural(found.moved.n, 'record')} would change band
                {found.moved.n > found.moved.first.length ? <span className="quiet small"> · first {found.moved.first.length}</span> : null}
              </h2>
              <table className="plain">
                <tbody>
                  {found.moved.first.map((each) => (
                    <tr key={each.id} title={each.why}>
                      <td className="cut" css={placed({ maxWidth: 190 })}>
                        <Link href={`/records/${records}/${each.id}`}>{each.name}</Link>
                      </td>
                      <td className="right">{each.points}</td>
                      <td>
                        {each.was} → <span className="strong">{each.now}</span>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          ) : null}
        </>
      }
    >
      <div className="head-row">
        <h2>
          {found ? `${found.all.toLocaleString('en-GB')} ${records}` : 'Counting …'}
          {found && found.of < found.all ? <span className="quiet small"> · a sample of {found.of.toLocaleString('en-GB')}</span> : null}
        </h2>
        <span className="grow" />
        <span className="quiet small" role="status">
          {state.trying
            ? 'counting …'
            : found && found.moved.n > 0
              ? `${plural(found.moved.n, 'record')} would change band`
              : 'a bar is dragged, or moved by the arrow keys'}
        </span>
      </div>
      {found ? (
        <Scores
          card={card}
          trial={found}
          most={most}
          mayChange={mayChange}
          onBands={(bands) => {
            set({ ...card, bands });
          }}
        />
      ) : (
        <div className="scores" />
      )}
      <At problems={problemsAt(problems, 'bands')} />
      <div className="head-row">
        <h2>Criteria</h2>
        <span className="quiet small">all together give {most}</span>
        <span className="grow" />
        <TextField
          select
          value={card.target}
          disabled={!mayChange}
          onChange={(event) => {
            set({ ...card, target: event.target.value === 'person' ? 'person' : 'company' });
          }}
          slotProps={{ htmlInput: { 'aria-label': 'What is scored' } }}
        >
          <MenuItem value="company">scores companies</MenuItem>
          <MenuItem value="person">scores people</MenuItem>
        </TextField>
      </div>
      <Criteria card={card} trial={found} problems={problems} mayChange={mayChange} onChange={set} />
    </BenchFrame>
  );
}
