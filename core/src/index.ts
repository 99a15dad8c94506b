export { aimMargin, type AimMargin } from './aimMargin';
export { callEvents, COUNT_WORDS, WORDS, type CallAsk, type CallEvent, type Word } from './calls';
export { cadencePlan, type CadenceWeek } from './cadencePlan';
export {
  chooseCue,
  CUE_SCHOOLS,
  type CueChoice,
  type CueSchool,
  type LiveFault,
} from './chooseCue';
export { closingSpeed, USUAL_BRAKING_MPS2, type ClosingSpeed } from './closingSpeed';
export {
  inFront,
  inFrontTracks,
  type InFront,
  type InFrontInput,
  type RaceMoment,
} from './inFront';
export { isMinor, type BirthAsk } from './age';
export { dayIn, dayNumber, hourIn, isDay, momentIn } from './days';
export { faultRate, HALF_LIFE_DAYS, type FaultRate, type SessionCount } from './faultRate';
export { rateBand, type RateBand } from './rateBand';
export { clubPrior, NO_PRIOR, type BetaPrior } from './clubPrior';
export { cueEffect, probImproved, type RepCounts } from './cueEffect';
export {
  cueState,
  nextSession,
  noHistory,
  storyOf,
  type FaultHistory,
  LIVE_RATE,
  STUCK_SESSIONS,
  STAYS_AWAY_DAYS,
  SURE,
  type FaultState,
  type FaultStory,
  type HistorySession,
  type SpanEffect,
} from './cueState';
export { causeLinks, type CausedFault, type LinkEvidence, type ShownTogether } from './causeLinks';
export { brakeDemand, type BrakeDemand } from './brakeDemand';
export { couldShow, exposure, type FaultPlace, type RepView } from './exposure';
export { watchNext } from './watchNext';
export {
  compareWays,
  WAY_MEASURES,
  type WayCounts,
  type WayLook,
  type WayMeasure,
  type WayStratum,
} from './compareWays';
export { contrasts, type Look, type LookSeen } from './contrasts';
export { kappa } from './kappa';
export { landingSpread, spreadParts, USUAL_SPREAD, type SpreadParts } from './landingSpread';
export { ladderStep, type LadderStep, type RungReps } from './ladder';
export { footBefore, otherFoot, type Foot } from './feet';
export {
  arcLanes,
  arcMove,
  keepersAt,
  onArc,
  type ArcLanes,
  type ArcMove,
  type ArcPlace,
} from './goalArc';
export {
  addLoads,
  countReps,
  groupBy,
  inLogOrder,
  lastOf,
  loggedTwice,
  toldDifferently,
  OUTCOMES,
  standing,
  turnKey,
  watchedTwice,
  type WatchedTwice,
  isAnswer,
  isLeaving,
  wasRun,
  LOAD_KINDS,
  type BodyLoad,
  type LoadKind,
  type Condition,
  type CountedRow,
  type LogPlace,
  type LogRow,
  type Outcome,
  type FaultsTogether,
  type RepCount,
  type Side,
  type TurnKey,
} from './repLog';
export { loadCheck, type LoadCheck, type LoadLevel } from './loadCheck';
export { cast, filled, groupsOf, rotation, type Part as ShiftPart, type Shift } from './rotation';
export {
  AS_PLANNED,
  keptVariants,
  slotsOf,
  struckKey,
  variantFrom,
  variantKey,
  variantsOf,
  type Axes,
  type Slot,
  type Variant,
  type Varied,
} from './variants';
export {
  beginsAtMissed,
  runState,
  STANDS,
  together,
  turnOrder,
  type Stand,
  type LoggedRep,
  type Missed,
  type RunSet,
  type RunState,
  type Turn,
} from './runOrder';
export { arcDepthM } from './layout/arc';
export { bodyOf, spanM, usualM, type Body, type BodyMeasure, type Handed } from './layout/body';
export type { GroundLine } from './layout/lines';
export { brakesOver, layOut, LAYOUT_VERSION, type LayoutChoices } from './layout/layOut';
export { countSteps } from './layout/shape';
export type { Layout, PhaseSpan } from './layout/shape';
export type { OtherPath } from './layout/sequence';
export {
  athleteSpread,
  BY_EYE,
  heldBy,
  plansBeside,
  simulationsOf,
  type ComparedPlan,
  type Held,
} from './holding';
export { mirrorLayout } from './layout/mirror';
export { PART_KINDS, type Part } from './layout/part';
export type { ArcAsk, Mark, MarkKind } from './layout/ground';
export { runLength, type BarAsk, type RunAsk } from './layout/runUp';
export {
  BALL,
  OTHERS,
  OWN_SIDES,
  pathOf,
  SPAN_UNITS,
  WAYS,
  type OtherThing,
  type PhaseKind,
  type PhaseSteps,
  type Sequence,
  type SequencePhase,
  type Span,
  type SpanUnit,
} from './layout/sequence';
export { turned, type Contact, type Footfall, type Place, type TrackPoint } from './layout/walker';
export {
  countedCadence,
  currentFigures,
  currentReading,
  fitSprint,
  READING_KINDS,
  takeOffMisses,
  type TakeOffSpot,
  readingResult,
  runThroughs,
  type CurrentFigures,
  type DatedReading,
  type Reading,
  type ReadingKind,
  type ReadingResult,
  type ReadingSource,
} from './measures';
export {
  playBeats,
  soundOf,
  steadyBeats,
  TONE_HZ,
  TONE_S,
  wavFile,
  type Beat,
  type RhythmChoices,
  type TimedBeat,
} from './rhythm';
export { shareMarks, tapeMarks, tapeStepM, type SharedMark, type TapeMark } from './setOut';
export {
  simulateRunUps,
  type RunUpSimulation,
  type RunUpSpread,
  type Steering,
} from './simulateRunUps';
export { attemptsForMakes, likelyTries, setDuration, type SetDuration } from './sets';
export {
  arcFromChord,
  solveCurve,
  type CurveFootfall,
  type CurveInput,
  type CurvePlan,
  type TapedSpot,
} from './solveCurve';
export {
  SOLVER_VERSION,
  solveStraight,
  type Absorb,
  type Brake,
  type Ending,
  type Pin,
  type SolvedStep,
  type StepBound,
  type StepRole,
  type StraightFailure,
  type StraightInput,
  type StraightPlan,
  type StraightResult,
} from './solveStraight';
export { checkRules, RULE_KINDS, type RuleBreak, type RuleSet, type StepRule } from './stepRules';
export {
  brakingOf,
  closableFraction,
  mendBraking,
  type BrakeMend,
  COMFORT,
  compareStepCounts,
  nearbyPlans,
  type NearbyPlan,
  type StepCountChoice,
  type StepCountComparison,
} from './stepCounts';
export {
  checkModel,
  currentModel,
  isSameModel,
  estimateStepModel,
  usualHeightM,
  fitStepModel,
  modelCadenceSpm,
  modelLengthM,
  STEP_BOUNDS,
  type CurrentModel,
  type FittedStep,
  type MeasuredStep,
  type StepModel,
  type StepModelFit,
  type Trial,
} from './stepModel';
export {
  anglesOf,
  figureOf,
  type ArmPose,
  postureAngles,
  SIDE_JOINTS,
  type LegPose,
  type Pose,
  type PostureAngles,
  type PostureInput,
  type SideFigure,
  type SideJoint,
  type SideLeg,
  type SidePoint,
} from './posture';
export {
  POSTURE_LOOKS,
  sideAt,
  sideView,
  type Posture,
  type PostureLook,
  type SideContact,
  type SideMoment,
  type SideView,
} from './sideView';
export { bodyFigure, type BodyFigure } from './bodyFigures';
export { feetAt, frontFigureOf, type FrontFigure, type FrontFoot } from './frontView';
export {
  FOOT_M,
  bareUnit,
  formatLength,
  formatSpeed,
  INCH_M,
  LENGTH_UNITS,
  lengthParts,
  parseBodyLength,
  parseLength,
  speedParts,
  wayParts,
  YARD_M,
  type FigurePart,
  type LengthStyle,
  type LengthUnit,
  type ParsedLength,
} from './units';
export {
  fitPlane,
  groundAt,
  pictureAt,
  planeMap,
  type GroundPoint,
  type MarkPair,
  type PicturePoint,
  type PlaneFit,
} from './planeMap';
export { podReading, type PodReading } from './podReading';
export { footCount, type CountReading } from './footCount';
export { stepTrace, type SeenContact, type TracedStep } from './stepTrace';
export {
  MARK_PX,
  readingOf,
  watchedSteps,
  type FilmContact,
  type FilmView,
  type FrameTime,
  type Watched,
  type WatchedStep,
} from './watchedSteps';
export { watchedPose, type WatchedPose } from './watchedPose';
export {
  BAND,
  STEADY_SPM,
  beatFor,
  courseOf,
  isInBand,
  minutesOf,
  rampStep,
  runsIn,
  steadyRun,
  stepsFelt,
  stepsHeard,
  type Course,
  type DeviceReading,
  type Minute,
  type MotionSample,
  type RampStep,
  type SoundSample,
  type SteadyRun,
} from './deviceCourse';
export { spreadOf, type Spread } from './spread';
export { seeded } from './random';
