/**
 * Scorecards: weighted criteria, disqualifiers, bands. Promises: the working adds up to the points, and a missing value
 * is called unknown, never "no". Refuses: learned points (they come with the backtest).
 */
export { scorecardSchema, type Band, type Criterion, type Disqualifier, type Scorecard } from './scorecard';
export { compileScorecard, type CompiledScorecard, type CriterionWorking, type ScoreResult } from './score';
