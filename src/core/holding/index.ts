/**
 * Hold or send: when a drafted answer waits for a person although it could go. Promises: the first rule that holds decides; what
 * cannot be told holds, and so does what no rule speaks of. Refuses: letting go what failed a check, what nothing agreed covers, and
 * what speaks to a machine, whatever the rules say.
 */
export {
  alwaysHeld,
  decideHold,
  MOST_RULES,
  readHoldRules,
  REPLY_MEANS,
  type Facing,
  type HoldDecision,
  type HoldRule,
  type HoldRules,
  type RuleProblem,
} from './rules';
export { agreementOf, earned, isLookedAt, type Agreement } from './earned';
