export { cueFor, type Cue } from './cue';
export { drillFor, drillOf, faultOf, movementOf, MOVEMENTS, phaseOf } from './movements';
export {
  branchesOf,
  exitsOf,
  laidOut,
  mirrorOutline,
  outlineOf,
  asPlanned,
  phasesOn,
  sequenceStart,
  solve,
  solverVersion,
  straightAsk,
  straightStart,
  wideSpeedMps,
  type Branch,
  type PlanChoices,
} from './plan';
export {
  beyondLaneM,
  feetDiffer,
  fromLine,
  givenBy,
  isStale,
  laneSentence,
  setOn,
  slotsOn,
  surfaceCautions,
  takenFrom,
} from './onGround';
export { askedSpeed, atPace, hasPaces } from './pace';
export { barFor, bySchools, forBody } from './schools';
export {
  chainCode,
  chainMovement,
  chainOf,
  chainParts,
  ENDINGS,
  isChain,
  MOVES,
  type Chain,
  type ChainEnding,
  type Move,
} from './chains';
export {
  barredBy,
  cautionsOf,
  demandOf,
  holding,
  leftBy,
  whyLeft,
  passedOver,
  repsFor,
  whyBarred,
  type DatedRestriction,
} from './restrictions';
export { hasEffect, otherWays, type OtherWay } from './otherWays';
export { cadenceWeeks, inWeek, isSteady, usualCadence } from './steadyCadence';
export { cushionInput, HORIZON_S, runnerTimes, usualCushion } from './givingGround';
export { isMirrored, mirrorWords, sideWord, toldTo } from './sides';
export { threeLooks, type Look } from './threeLooks';
export { sideOf } from './sideOf';
export { RULE_SETS } from './ruleSets';
export { searchIn, type Found, type Hit, type Search } from './search';
export { drillSetTime, repsOf, sessionReps, sessionTimeS, type Conditions } from './sessionTime';
export {
  athleteFaults,
  bySession,
  faultHistory,
  likelyFaults,
  standingsOf,
  type SessionFaults,
} from './standings';
export { offer, whatChanges, whyNot, withOffer } from './offers';
export { freshReading, readReading, type TypedReading } from './readingText';
export {
  brokenRules,
  fitOf,
  freshDrillSet,
  mayRun,
  withoutAthletes,
  type SessionFit,
} from './sessionFit';
export {
  groundMarks,
  sheetCsv,
  sheetMarks,
  sheetRows,
  sheetSvg,
  type Datum,
  type GroundMark,
  type SheetMark,
} from './sheet';
export {
  squadLine,
  squadMarks,
  whyNotShort,
  type SquadAsk,
  type SquadLine,
  type SquadMark,
} from './squad';
export { MOST_PASTED_ATHLETES, readRoster, type ReadRoster, type TypedAthlete } from './rosterText';
export { readPaste, readSteps, type Clock, type TypedStep } from './trialText';
