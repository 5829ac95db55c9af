/** @jsxImportSource @emotion/react */
import { forecastRibbon, type Station } from '../state/release';
import { placed } from '../../kit/placed';

const WIDTH = 600;
const HEIGHT = 150;

const count = (value: number): string => Math.round(value).toLocaleString('en-GB');

/** How many records will get how far: the middle as water, the range as its lighter banks. */
export function ForecastRibbon({ stations }: { readonly stations: readonly Station[] }) {
  const bands = forecastRibbon(
    stations.map((station) => station.reach),
    WIDTH,
    HEIGHT,
  );
  return (
    <figure css={placed({ margin: 0 })}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        height={HEIGHT}
        preserveAspectRatio="none"
        role="img"
        aria-label={`From ${count(stations[0]?.reach.mid ?? 0)} records ${count(stations.at(-1)?.reach.mid ?? 0)} come to ${stations.at(-1)?.label ?? 'the end'}`}
      >
        <path d={bands.high} fill="var(--w1)" />
        <path d={bands.mid} fill="var(--w3)" />
        <path d={bands.low} fill="var(--w4)" opacity={0.55} />
      </svg>
      <ol className="stations">
        {stations.map((station) => (
          <li key={station.mark}>
            <span className="cut">
              {station.label}
              {station.guessed ? (
                <span className="in-brass" title="Nothing has been seen at this line yet: try it to know more">
                  {' '}
                  ?
                </span>
              ) : null}
            </span>
            <span className="strong num">{count(station.reach.mid)}</span>
            <span className="quiet small num">
              {station.reach.low === station.reach.high ? ' ' : `${count(station.reach.low)}–${count(station.reach.high)}`}
            </span>
          </li>
        ))}
      </ol>
    </figure>
  );
}
