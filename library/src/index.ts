export {
  chooseSets,
  measurementDue,
  needsOf,
  type Need,
  offersFor,
  type Reason,
  type SetChoice,
} from './chooseSets';
export { cueFor, type Cue } from './cue';
export { drillFor, drillOf, faultOf, firstPhaseOf, phaseOf } from './byCode';
export { stepsIn } from './stepWords';
export { usualBody } from './usualBody';
export { withFaultPhases } from './olderMovement';
export { cueVerdict, type CueVerdict } from './cueVerdict';
export {
  cueIn,
  fieldRow,
  pressOf,
  repOf,
  type FieldRow,
  type Seen,
  type SetWork,
} from './field/log';
export { LEAST_HOLD_S, outcomeOf } from './field/outcome';
export {
  marksFrom,
  NOTHING_PRESSED,
  pressed,
  type Answer,
  type Press,
  type PressOn,
  type TurnMarks,
} from './field/press';
export {
  fieldAthletes,
  isCountedAlone,
  isRow,
  latecomersOf,
  setOrder,
  setRun,
  setWorks,
  type FieldSession,
  type SetRun,
} from './field/sets';
export {
  faultsInFilm,
  footAt,
  phaseTicks,
  withContact,
  withJoint,
  withNextPhase,
  withToeOff,
  type FilmMarks,
} from './field/film';
export { filmedRows, voidOf } from './field/takenBack';
export {
  cueSaid,
  faultsOffered,
  turnView,
  turnWords,
  type TurnView,
  type TurnWords,
} from './field/turn';
export {
  addResults,
  fewestMade,
  makesBySpot,
  readsOfCounts,
  resultsOfCounts,
  slowsBy,
  splitsOf,
  type ReadCount,
  type ResultCount,
} from './results';
export { askedExit, exitsToCall, exitsToRead, type Exit } from './field/reads';
export {
  rowCalls,
  rowPlaces,
  WATCHED_AT_ONCE,
  watchedAfter,
  wordsOfRow,
  type RowCall,
  type RowPlace,
} from './field/row';
export {
  answersRead,
  faultsToShow,
  likelyFirst,
  phasesOfRep,
  tapsOf,
  viewOfRep,
  wrongAnswerTo,
  type RepView,
} from './field/shows';
export { movementOf, MOVEMENTS } from './movements';
export {
  branchesOf,
  exitsOf,
  laidOut,
  mirrorOutline,
  outlineOf,
  asPlanned,
  phasesOn,
  readsTo,
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
  slotFor,
  surfaceCautions,
  takenFrom,
  USUAL_GROUNDS,
} from './onGround';
export { askedSpeed, atPace, hasWayIn } from './pace';
export { bodyLoad } from './bodyLoad';
export { mends, type Mend } from './mend';
export { sessionOutlook, sessionsOnNow, type Outlook } from './sessionOutlook';
export {
  sessionFigures,
  solveRuns,
  type SessionAsk,
  type SessionFigures,
  type SetFigures,
} from './sessionFigures';
export {
  asVaried,
  baseOf,
  demandOfSet,
  drillOfBase,
  exitName,
  wayName,
  fieldBase,
  fieldRun,
  isAsPlanned,
  keepSolved,
  movementCode,
  notJoined,
  paceWord,
  plainChoices,
  RUNG_NAMES,
  sideWords,
  solvedOf,
  targetWords,
  variantWords,
  variedRun,
  variesWords,
  type Base,
  type Finds,
  type Varied,
} from './work';
export {
  mostLoaded,
  weekLimit,
  sessionLoads,
  loadsOf,
  type MostOf,
  type WeeksOf,
} from './sessionLoad';
export { barFor, bySchools, forBody, waysOf } from './schools';
export { asDrilled } from './asDrilled';
export { setOfWork } from './setOfWork';
export { groupedByDoer } from './groups';
export { lawsBroken, type Broken } from './laws';
export { numbersSaid } from './saidNumbers';
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
  cameTo,
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
export {
  cadenceWeeks,
  easyBeat,
  inWeek,
  isSteady,
  steadyTarget,
  distinctRuns,
  steadyWeeks,
  usualCadence,
  type DatedSteadyRun,
  type SteadyWeek,
} from './steadyCadence';
export {
  frontInput,
  frontOf,
  HORIZON_S,
  racingARunner,
  runnerTimes,
  turningSchool,
  turnOf,
  TURNS,
  usualFront,
  whatHelps,
  type FrontChoice,
  type Helps,
  type Turn,
} from './givingGround';
export { isMirrored, mirrorWords, sidePhrase, sideWord, toldTo } from './sides';
export { threeLooks, type Look } from './threeLooks';
export { sideOf } from './sideOf';
export { RULE_SETS } from './ruleSets';
export { nothingFor, searchIn, type Found, type Hit, type Search } from './search';
export {
  atOnce,
  drillSetTime,
  KNOWN_FROM,
  likelyReps,
  makeRate,
  placed,
  restFor,
  sessionReps,
  sessionTimeS,
  suggestedRestS,
  twoPlaces,
  type Conditions,
  type Makes,
  type Placed,
  type SetTime,
} from './sessionTime';
export {
  byNeed,
  sharedFaults,
  WATCHED_FROM,
  whyNeeded,
  type FaultLine,
  type SharedFault,
} from './squadFaults';
export {
  athleteFaults,
  byFaultCode,
  bySession,
  cueInForce,
  historyOf,
  priorsOf,
  shownIn,
  standingsOf,
  toldOf,
  type Priors,
  type Shown,
  type SessionFaults,
} from './standings';
export {
  addReads,
  agreementOf,
  contrastsOf,
  cueResults,
  cueSpans,
  isOf,
  isTelling,
  misreadMost,
  type ConditionRow,
} from './ledger';
export { checkCauses, withLink } from './causes';
export { inPlace, placeLines, spotCalled, spotsOf, type NamedSpot, type SpotChoice } from './place';
export { progressOf } from './progress';
export { checkWays, type WayRow } from './ways';
export { laddersOf } from './ladder';
export { CSV_START, csvText, readTable, type Cell, type CsvTable } from './csv';
export {
  guessRosterColumns,
  readRosterTable,
  ROSTER_COLUMNS,
  type RosterColumn,
  type RosterRow,
  type TableAthlete,
} from './rosterTable';
export { offer, whatChanges, whyNot, withOffer } from './offers';
export { freshReading, readReading, type TypedReading } from './readingText';
export {
  brokenRules,
  fitOf,
  freshDrillSet,
  mayRun,
  asDrillSet,
  withoutAthletes,
  type OlderDrillSet,
  type SessionFit,
} from './sessionFit';
export {
  groundMarks,
  sheetMarks,
  sheetRows,
  type Datum,
  type GroundMark,
  type SheetMark,
} from './sheet';
export { sheetCsv, sheetSvg } from './sheetFile';
export {
  squadLine,
  squadMarks,
  whyNotShort,
  type SquadAsk,
  type SquadLine,
  type SquadMark,
} from './squad';
export {
  birthdayOf,
  MOST_PASTED_ATHLETES,
  readRoster,
  type RosterLine,
  type TypedAthlete,
} from './rosterText';
export { readPaste, readSteps, type Reckoning, type RunReading, type TypedStep } from './trialText';
export { helpersOf, rotationAxis, type RotationAxis } from './rotationAxis';
export {
  besidePlan,
  firstStepOf,
  reactionIn,
  plannedSteps,
  suggestions,
  type Measured,
  type PlannedStep,
  type SeenPose,
  type StepBeside,
  type Suggestion,
} from './watched';
export {
  plainPlan,
  reviewCue,
  reviewed,
  type Marked,
  type ReviewCue,
  type Reviewed,
} from './reviewed';
export {
  guessGates,
  guessUnit,
  readGates,
  readRecorded,
  RECORDED_MAX,
  type GateColumn,
  type GateUnit,
  type Gates,
  type Recorded,
} from './recorded';
export {
  courseSuggestions,
  measuredMeans,
  measuredOf,
  plannedCadence,
  plannedRun,
  runsFrom,
  steadyRunOf,
  type MeasuredFigure,
  type MeasuredPer,
  type MeasuredRow,
  type MeasuredSuggestion,
  type PlannedRun,
} from './measuredRun';
export { gatesMeasured, passedAt, readPasses } from './gates';
export { GATES_M, simulatedGates, simulatedPass, simulatedPod } from './simulated';
