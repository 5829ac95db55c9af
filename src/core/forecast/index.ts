/**
 * What releasing a flow on a number of records will bring: survivors at every line, cost, messages a day, first and last
 * day, each with a range. Promises: the same figures and seed give the same forecast; where nothing has been seen the range is
 * wide and the line is named. Refuses: knowing where the figures come from.
 */
export { forecast, type Forecast, type ForecastAsk, type ForecastDay, type LineForecast, type LineSeen, type Range } from './forecast';
export { judge, type Judged } from './judge';
