import type { Foot } from '@gravek/core/feet';
import type { Layout } from '@gravek/core/layout/shape';
import { between, type Place } from '@gravek/core/layout/walker';
import { type TapeMark, tapeMarks, tapeStepM } from '@gravek/core/runup/setOut';
import type { StraightPlan } from '@gravek/core/runup/straightPlan';
import type { LengthStyle } from '@gravek/core/units';
import { counted } from '@gravek/core/words';

export type SheetMark = {
  key: string;
  label: string;
  hint: string;
  foot: Foot | null;
  toTargetM: number;
};

export type Datum = 'target' | 'start';

/** Everything to tape: start, check marks, where to shorten, and every print if that is wanted. */
export const sheetMarks = (plan: StraightPlan, every: boolean): SheetMark[] => {
  const n = plan.steps.length;
  const marks: SheetMark[] = [
    {
      key: 'start',
      label: 'Start',
      hint: 'toes on it, first goes the',
      foot: plan.startFoot,
      toTargetM: plan.distanceM,
    },
    ...plan.checkMarks
      .filter((mark) => mark.stepsOut < n)
      .map((mark) => ({
        key: `check${mark.stepsOut}`,
        label: `${counted(mark.stepsOut, 'step')} out`,
        hint: 'toe on it,',
        foot: mark.foot,
        toTargetM: mark.toTargetM,
      })),
  ];
  if (plan.brake) {
    marks.push({
      key: 'shorten',
      label: 'Shorten from here',
      hint: 'the last long step lands here',
      foot: null,
      toTargetM: plan.brake.brakeZoneM,
    });
  }
  if (every) {
    const taken = new Set(marks.map((mark) => mark.toTargetM.toFixed(3)));
    for (const step of plan.steps.slice(0, -1)) {
      if (taken.has(step.toTargetM.toFixed(3))) continue;
      marks.push({
        key: `step${step.n}`,
        label: `Step ${step.n}`,
        hint: 'toe on it,',
        foot: step.foot,
        toTargetM: step.toTargetM,
      });
    }
  }
  return marks;
};

/** The sheet's rows in the order in which a person walks away from the datum. */
export const sheetRows = (
  plan: StraightPlan,
  style: LengthStyle,
  datum: Datum,
  every: boolean,
): TapeMark<SheetMark>[] => {
  const marks = sheetMarks(plan, every).filter(
    (mark) => datum === 'target' || mark.key !== 'start',
  );
  const target: SheetMark = { key: 'target', label: 'Target', hint: '', foot: null, toTargetM: 0 };
  return tapeMarks(
    datum === 'target' ? marks : [...marks, target],
    (mark) => (datum === 'target' ? mark.toTargetM : plan.distanceM - mark.toTargetM),
    tapeStepM(style.unit, style.shoeM),
  );
};

/** A mark of a sequence to set out, seen from the start mark. */
export type GroundMark = {
  label: string;
  /** behind the start negative, metres */
  aheadM: number;
  asideM: number;
  /** null where it lies straight ahead */
  side: Foot | null;
  /** by two tapes, from two points that are built; null where nothing is */
  tapes: Tapes | null;
};

/** Two lengths of tape that meet at a mark. */
export type Tapes = [Tape, Tape];
export type Tape = { from: string; lengthM: number };

/** What is built with two ends that a tape can be held to, and what such an end is. */
const WITH_ENDS = [
  { name: 'end line', end: 'lane corner' },
  { name: 'goal', end: 'post' },
  { name: 'net', end: 'post' },
] as const;

/** Two points that are built: the corners of a lane, the ends of a goal or of a net; null where a movement has none. */
const fixedPoints = (others: Layout['others']): { name: string; at: Place }[] | null => {
  for (const { name, end } of WITH_ENDS) {
    const built = others.find((other) => other.name === name && other.line);
    if (!built) continue;
    const [left, right] = [...built.points].sort((a, b) => a.besideM - b.besideM);
    return [
      { name: `left ${end}`, at: left! },
      { name: `right ${end}`, at: right! },
    ];
  }
  return null;
};

/** Nearer than this nobody tapes apart, metres. */
const SAME_M = 0.005;

/**
 * What to set out of a laid-out sequence, the start mark first: seen from the start mark, and by two tapes where
 * something is built. Left and right are as the athlete faces first.
 *
 * @example groundMarks(laidOut(gaps, body)).length > 0 // true
 */
export const groundMarks = ({
  marks,
  others: things,
}: Pick<Layout, 'marks' | 'others'>): GroundMark[] => {
  const fixed = fixedPoints(things);
  const tapesTo = (place: Place): Tapes | null =>
    fixed && (fixed.map(({ name, at }) => ({ from: name, lengthM: between(at, place) })) as Tapes);
  const gaps = marks.filter((mark) => mark.kind === 'gap');
  // A row of gaps is set out gap by gap, though the drawing names its ends only.
  const markNames = marks.map((mark) =>
    mark.kind === 'gap' && mark.label === ''
      ? { ...mark, label: `gap ${gaps.indexOf(mark) + 1}` }
      : mark,
  );
  const start = markNames.find((mark) => mark.kind === 'start') ?? markNames[0];
  if (!start) return [];
  // What is seen from the start mark, or begins there, is no mark of its own.
  const isAtStart = (mark: (typeof markNames)[number]): boolean =>
    ['read', 'gap'].includes(mark.kind) &&
    Math.hypot(mark.besideM - start.besideM, mark.aheadM - start.aheadM) < SAME_M;
  const others = markNames.filter(
    (mark) => mark !== start && mark.label !== '' && !isAtStart(mark),
  );
  return [
    { label: 'start', aheadM: 0, asideM: 0, side: null, tapes: tapesTo(start) },
    ...others.map((mark): GroundMark => {
      const aside = mark.besideM - start.besideM;
      const ahead = mark.aheadM - start.aheadM;
      return {
        label: mark.label,
        aheadM: Math.abs(ahead) < SAME_M ? 0 : ahead,
        asideM: Math.abs(aside),
        side: Math.abs(aside) < SAME_M ? null : aside < 0 ? 'left' : 'right',
        tapes: tapesTo(mark),
      };
    }),
  ];
};
