import { couldShow } from '@gravek/core/cue/exposure';
import type { Body } from '@gravek/core/layout/body';
import type { Variant } from '@gravek/core/session/variants';
import type { Fault, Movement } from '@gravek/contract/movement';
import type { RunCue } from '@gravek/contract/run';
import { phaseOf } from '../movement/byCode';
import { asDrilled } from '../movement/asDrilled';
import { phasesOn } from '../planning/branches';
import { bySchools } from '../movement/schools';
import { usualBody } from '../planning/usualBody';
import { asVaried, variedRun, type Base } from '../session/work';

/** An exit of a read, as reps name it: `phase:option`. */
const optionOf = (movement: Movement, exit: string) => {
  const [phase = '', code] = exit.split(':');
  return phaseOf(movement, phase)?.read?.options.find((option) => option.code === code);
};

/**
 * Whether the exit that was taken answers the exit that was asked: it leads to the same phase. Where a
 * movement does not have one of them any more, only the same exit is right.
 *
 * @param exit as `phase:option`
 * @param taken as `phase:option`
 * @example
 * // Square and unsure both ask for short steps.
 * answersRead(closeAndShorten, 'sprint:unsure', 'sprint:square') // true
 * answersRead(closeAndShorten, 'sprint:unsure', 'sprint:side-on') // false
 * Source: domain definitions, section 5.
 */
export const answersRead = (movement: Movement, exit: string, taken: string): boolean => {
  if (exit === taken) return true;
  const [wanted, went] = [optionOf(movement, exit), optionOf(movement, taken)];
  return exit.split(':')[0] === taken.split(':')[0] && !!wanted && wanted.to === went?.to;
};

/**
 * The fault of a movement that is a wrong answer to a read; undefined where it names none.
 *
 * @example wrongAnswerTo(giveGround, 'give:left').code // 'wrong-side'
 */
export const wrongAnswerTo = (movement: Movement, exit: string): Fault | undefined =>
  movement.faults.find(({ read, phases }) => read && phases.includes(exit.split(':')[0]!));

/**
 * The phases that a rep goes through, by their codes in order: of the drill's part, on the exit.
 *
 * @param exit that was taken, else that was asked, as `phase:option`; null where there was none
 * @returns empty for a warm-up and for what cannot be joined
 * @example
 * const base = { name: '', movement: giveGround, choices: plainChoices(giveGround, null) };
 * phasesOfRep(base, variantFrom('', 'own'), 'give:left').length // 6
 */
export const phasesOfRep = (
  base: Base,
  variant: Variant,
  exit: string | null,
  body: Body = usualBody(),
): string[] => {
  if (!base.movement || !base.choices) return [];
  const onExit = { ...variant, exit: exit ?? variant.exit };
  const { phases } = variedRun(base, onExit, body);
  if (phases.length > 0) return phases;
  // A plan that this body cannot run is run by feel, on the same way.
  const run = asVaried({ movement: base.movement, choices: base.choices }, onExit);
  if ('why' in run) return [];
  const { movement, choices } = run;
  return phasesOn(movement, 'reads' in choices ? choices : {}).map(({ code }) => code);
};

/**
 * The faults that a rep could show, in the words in which it is taught.
 *
 * @param taught as of `bySchools`: what is no fault in a school is not in it
 * @param phases as of `phasesOfRep`
 * @param asked the exit that a read asked for; null where none was asked
 * @example
 * faultsToShow(straightRunUp, ['arrival'], null).map(({ code }) => code) // ['locked-leg', 'over-line']
 */
export const faultsToShow = (
  taught: Movement,
  phases: readonly string[],
  asked: string | null,
): Fault[] => {
  const codes = new Set(couldShow(taught.faults, { phases, asked, without: [] }));
  return taught.faults.filter(({ code }) => codes.has(code));
};

/**
 * Faults to offer for a rep, the likeliest first: the cued one, then those that the drill is against, then
 * by how often each showed before, then by how grave it is.
 *
 * @param faults those that the rep could show
 * @param drill code of the drill that is run; null for the whole
 * @example likelyFirst(straightRunUp.faults, null, { fault: 'reaches', likely: ['slows-in'] })[0]!.code // 'reaches'
 */
export const likelyFirst = (
  faults: readonly Fault[],
  drill: string | null,
  { fault: cued, likely }: Pick<RunCue, 'fault' | 'likely'>,
): Fault[] => {
  const place = ({ code, drills }: Fault): number =>
    code === cued
      ? -2
      : drill !== null && drills.includes(drill)
        ? -1
        : likely.includes(code)
          ? likely.indexOf(code)
          : likely.length;
  return [...faults].sort((a, b) => place(a) - place(b) || b.severity - a.severity);
};

/**
 * The faults of a row that a coach has tapped: without the wrong answer that its read gave.
 *
 * @param movement null where it is not known any more
 * @example tapsOf(giveGround, { faults: ['wrong-side', 'no-arm'], right: false }) // ['no-arm']
 */
export const tapsOf = (
  movement: Movement | null,
  { faults, right }: { faults: readonly string[]; right: boolean | null },
): string[] =>
  faults.filter(
    (code) =>
      right !== false || !movement?.faults.some((fault) => fault.code === code && fault.read),
  );

/** What a rep says of what there was to be seen in it. */
export type RepView = { could: string[]; right: boolean | null; faults: string[] };

/**
 * What there was to be seen in a rep, and whether its read was answered: a wrong answer is among its faults.
 *
 * @param rep `asked`: the exit that a read asked for, null where none was asked; `taken`: null where nobody said
 * @example
 * const base = { name: '', movement: giveGround, choices: plainChoices(giveGround, null) };
 * const rep = { exit: 'give:left', asked: 'give:left', taken: 'give:right', faults: [] };
 * viewOfRep(base, variantFrom('', 'own'), rep).faults // ['wrong-side']: the answer was wrong
 */
export const viewOfRep = (
  base: Base,
  variant: Variant,
  rep: {
    exit: string | null;
    asked: string | null;
    taken: string | null;
    faults: readonly string[];
  },
  body?: Body,
): RepView => {
  const { movement, choices } = base;
  const run = movement && choices ? asVaried({ movement, choices }, variant) : null;
  if (!run || 'why' in run) return { could: [], right: null, faults: [...rep.faults] };
  const drill = 'drill' in run.choices ? run.choices.drill : null;
  const taught = bySchools(asDrilled(run.movement, drill), run.choices.schools);
  const phases = phasesOfRep(base, variant, rep.taken ?? rep.exit, body);
  const could = faultsToShow(taught, phases, rep.asked).map(({ code }) => code);
  const right =
    rep.asked === null || rep.taken === null ? null : answersRead(taught, rep.asked, rep.taken);
  const wrong = right === false ? wrongAnswerTo(taught, rep.asked!)?.code : undefined;
  return {
    could,
    right,
    faults: [...new Set([...rep.faults, ...(wrong === undefined ? [] : [wrong])])],
  };
};
