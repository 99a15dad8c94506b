import { number } from '../check';
import { USUAL_BRAKING_MPS2 } from '../runup/closingSpeed';
import type { Body } from './body';
import type { LayoutChoices } from './layoutChoices';
import { mirrorLayout } from './mirror';
import { cutPart } from './part';
import { pathOf, type Sequence } from './sequence';
import type { Layout } from './shape';
import { isThrown, lay, ON_THE_SPOT_M, SLOWEST, turns } from './walk';
import type { Footfall } from './walker';

/** Changes when the same sequence could be laid out differently; stored with every plan. */
export const LAYOUT_VERSION = 5;

/**
 * Where a layout asks for harder braking from one running step to the next than a body has, by `brakeDemand`:
 * m/s², and the contact that brakes. Feet that brace for a jump, a throw, a turn or a stop on both are no running steps; who comes
 * to rest brakes over the time until then.
 */
export const brakesOver = (
  layout: Pick<Layout, 'footfalls'>,
  limitMps2: number,
): { fall: Footfall; from: Footfall; decelMps2: number }[] => {
  const steps = layout.footfalls.filter((fall, i, all) => fall.n > 0 && fall.n !== all[i - 1]?.n);
  const onBoth = new Set(
    layout.footfalls.flatMap(({ n }, i, all) => (n === all[i - 1]?.n ? [n] : [])),
  );
  return steps.slice(1).flatMap((fall, i) => {
    const from = steps[i]!;
    if (isThrown(from, fall) || fall.contact === 'stand' || from.contact === 'stand') return [];
    const stillS = fall.timeS - from.timeS - fall.intervalS;
    const decelMps2 =
      stillS > 0.01
        ? from.speedMps / (from.intervalS / 2 + stillS)
        : fall.lengthM < ON_THE_SPOT_M
          ? from.speedMps / ((from.intervalS + fall.intervalS) / 2)
          : turns(from, fall) || onBoth.has(fall.n)
            ? 0
            : (from.speedMps ** 2 - fall.speedMps ** 2) / (2 * fall.lengthM);
    return decelMps2 > limitMps2 * (1 + 1e-6) ? [{ fall, from, decelMps2 }] : [];
  });
};

/**
 * Lays out, and slows each run that has to brake harder than the body can for what follows it: the close
 * is as fast as can still be braked.
 */
const laidWithin = (sequence: Sequence, athlete: Body, choices: LayoutChoices): Layout => {
  const limit = athlete.brakeMps2 ?? USUAL_BRAKING_MPS2;
  const path = pathOf(sequence.phases, choices.reads);
  const runs = sequence.phases.flatMap(({ code, steps }) =>
    steps.kind === 'build-up' || steps.kind === 'arc-move' ? [code] : [],
  );
  const taken = lay(sequence, athlete, choices);
  // What a solver was asked for is run as asked.
  if (choices.run || choices.bar) return taken;
  /** The run on the way that a layout brakes out of too hard. */
  const brokenRuns = (layout: Layout): (string | undefined)[] => {
    const order = layout.phases.map((phase) => phase.code);
    return brakesOver(layout, limit).map(({ from }) =>
      order.slice(0, order.indexOf(from.phase) + 1).findLast((code) => runs.includes(code)),
    );
  };
  // Who does not know yet which way it will go must be able to brake for each.
  const ways = [
    choices.reads,
    ...path.flatMap(({ code, read }) =>
      (read?.options ?? []).map((option) => ({ ...choices.reads, [code]: option.code })),
    ),
  ].filter(
    (reads, i) =>
      brokenRuns(i === 0 ? taken : lay(sequence, athlete, { ...choices, reads })).length,
  );
  const speeds: Record<string, number> = { ...choices.speeds };
  const held: Layout['held'] = [];
  const brokenAt = (reads: LayoutChoices['reads']): (string | undefined)[] =>
    brokenRuns(lay(sequence, athlete, { ...choices, reads, speeds }));
  for (const code of new Set(ways.flatMap(brokenAt))) {
    if (!path.some((phase) => phase.code === code) || code === undefined) continue;
    const speed = speeds[code] ?? 1;
    const within = (part: number): boolean => {
      speeds[code] = speed * part;
      return !ways.some((reads) => brokenAt(reads).includes(code));
    };
    let [low, high] = [SLOWEST, 1];
    for (let i = 0; i < 9; i += 1) {
      const middle = (low + high) / 2;
      if (within(middle)) low = middle;
      else high = middle;
    }
    speeds[code] = speed * low;
    held.push({ phase: code, part: low });
  }
  return held.length === 0 ? taken : { ...lay(sequence, athlete, { ...choices, speeds }), held };
};

/**
 * Lays a sequence out on the ground for one athlete: every footfall with place, time and phase, the
 * marks to set out, and where opponent, ball or bar are. One engine for all movements; run-ups with a
 * target on the ground or a bar go through the straight and the curve solver.
 *
 * Speed scales run steps and their cadence by its root each, as the straight solver does; all other
 * footwork keeps its lengths and slows down.
 *
 * @param athlete own measures in metres; hand and take-off foot decide whether it is mirrored
 * @returns metres, seconds, degrees clockwise from where the athlete faces at the start
 * @throws {RangeError} naming what is out of range
 * @example
 * const athlete = { trials: [], heightM: 1.75, legM: null, shoeM: null };
 * const body = bodyOf({ ...athlete, hand: 'right', takeoffFoot: 'left' });
 * const steps = { kind: 'build-up', first: 'left', steps: 4, fill: false, target: null };
 * const phase = { code: 'run', name: 'Run', steps, next: null, read: null, turn: null, ball: null };
 * const sequence = { writtenFor: { by: 'neither', side: 'left' }, phases: [phase], others: [] };
 * layOut(sequence, body).footfalls.map(({ n, foot }) => `${n} ${foot}`).at(-1) // '4 right'
 * Source: plane geometry; step model and solvers as in their own files
 */
export const layOut = (sequence: Sequence, athlete: Body, choices: LayoutChoices = {}): Layout => {
  number('speedFraction', choices.speedFraction ?? 1, { min: 0.2, max: 1.1 });
  for (const [code, part] of Object.entries(choices.speeds ?? {})) {
    number(`speeds.${code}`, part, { min: 0.05, max: 1.1 });
  }
  const layout = laidWithin(sequence, athlete, choices);
  const { by, side } = sequence.writtenFor;
  const ownSide = by === 'neither' ? side : by === 'hand' ? athlete.hand : athlete.takeoffFoot;
  const mirrored = (ownSide !== side) !== (choices.side === 'other');
  const cut = choices.part ? cutPart(layout, choices.part) : layout;
  return mirrored ? mirrorLayout(cut) : cut;
};
