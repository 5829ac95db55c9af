/**
 * Whether two records are the same person or company. Promises: keys find every candidate that agrees on e-mail, phone,
 * site or a close name; the weight is a sum of evidence that can be shown. Refuses: merging.
 */
export { companyName, companySite, normalisePhone, personName } from './normalise';
export { jaroWinkler } from './similarity';
export {
  companyKeys,
  compareCompanies,
  comparePeople,
  compareReadyCompanies,
  compareReadyPeople,
  confidenceAtMost,
  readyCompany,
  readyPerson,
  judgeMatch,
  personKeys,
  reachOf,
  type Comparison,
  type Evidence,
  type MatchCompany,
  type MatchPerson,
  type Reach,
  type ReadyCompany,
  type ReadyPerson,
  type Verdict,
} from './compare';
