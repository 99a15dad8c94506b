export { athleteFaults, type AthleteFaults, type FaultPicture } from './athleteFaults';
export { cueFor, type Cue } from './cue';
export { drillFor, drillOf, faultOf, movementOf, MOVEMENTS, phaseOf } from './movements';
export {
  branchesOf,
  laidOut,
  outlineOf,
  phasesOn,
  sequenceStart,
  solvePlan,
  straightStart,
  type Branch,
  type Outline,
  type PlanChoices,
} from './plan';
export { barredBy, holding, whyBarred, type DatedRestriction } from './restrictions';
export { isMirrored, mirrorWords, toldTo } from './sides';
export { RULE_SETS } from './ruleSets';
export { searchIn, type Found, type Hit, type Search } from './search';
