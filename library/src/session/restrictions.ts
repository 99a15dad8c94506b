import {
  inLogOrder,
  isLeaving,
  standing,
  type LogRow,
  type Outcome,
} from '@gravek/core/session/repLog';
import type { Choices } from '@gravek/contract/approach';
import type { RestrictionKind } from '@gravek/contract/athlete';
import type { Load, Movement } from '@gravek/contract/movement';
import { isSequence } from '@gravek/contract/choices';
import { drillOf } from '../movement/byCode';
import { surfaceCautions } from '../planning/onGround';
import { askedSpeed } from '../planning/pace';

/** What each restriction bars; reduced volume bars nothing and allows fewer reps. */
const BARS: Record<RestrictionKind, Load | 'everything' | null> = {
  'no-jumping': 'jump',
  'no-sprinting': 'sprint',
  'no-contact': 'contact',
  reduced: null,
  pain: 'everything',
};

const WHY: Record<RestrictionKind, string> = {
  'no-jumping': 'may not jump, and this takes off and lands',
  'no-sprinting': 'may not sprint, and this is run fast',
  'no-contact': 'may not have contact, and this meets a pad or a partner',
  reduced: 'is on reduced volume',
  pain: 'was stopped by pain and waits to be cleared',
};

/** Slower than this part of full speed is no sprint. */
const SPRINT_FROM = 0.75;
export type DatedRestriction = {
  kind: RestrictionKind;
  from: string;
  /** null: until somebody lifts it */
  until: string | null;
  /** of the usual reps, where volume is reduced; half where nobody said */
  share?: number;
};

const USUAL_SHARE = 0.5;

/**
 * The restrictions that hold on a day (yyyy-mm-dd).
 *
 * @example holding([{ kind: 'pain', from: '2031-03-01', until: null }], '2031-04-01').length // 1
 */
export const holding = <R extends DatedRestriction>(restrictions: readonly R[], on: string): R[] =>
  restrictions.filter(
    (restriction) =>
      restriction.from <= on && (restriction.until === null || on <= restriction.until),
  );

/**
 * What is asked of the body by a movement as it is planned: its drill, how fast, and how far up the
 * ladder. Footwork on air has no contact, and what is walked is no sprint.
 *
 * @example demandOf(straightRunUp, straightStart(straightRunUp)) // ['sprint', 'jump']
 */
export const demandOf = (movement: Movement, choices: Choices): Load[] => {
  const drill = isSequence(choices) && choices.drill ? drillOf(movement, choices.drill) : undefined;
  const rung = choices.rung ?? 'full';
  const fast = askedSpeed(movement, choices) >= SPRINT_FROM;
  return ((drill?.loads ?? movement.loads) as Load[]).filter((load) => {
    if (load === 'contact') return rung === 'object' || rung === 'opponent';
    if (load === 'sprint') return fast && !['stand', 'walk', 'half'].includes(rung);
    return true;
  });
};

/**
 * What is said where it is planned and run: the drill's own caution or the movement's first, the surface.
 *
 * @example
 * const choices = { ...sequenceStart(), kind: 'sequence' };
 * cautionsOf(gaps, choices).length // 1
 */
export const cautionsOf = (movement: Movement, choices: Choices): string[] => {
  const drill = isSequence(choices) && choices.drill ? drillOf(movement, choices.drill) : undefined;
  return [
    ...(drill?.caution ? [drill.caution] : movement.cautions.slice(0, 1)),
    ...surfaceCautions(choices.ground),
  ];
};

/**
 * The restriction that keeps an athlete from something on a day, or null.
 *
 * @example
 * barredBy(['jump'], [{ kind: 'no-jumping', from: '2031-03-01', until: null }], '2031-04-01').kind
 * // 'no-jumping'
 */
export const barredBy = <R extends DatedRestriction>(
  loads: readonly Load[],
  restrictions: readonly R[],
  on: string,
): R | null =>
  holding(restrictions, on).find((restriction) => {
    const bars = BARS[restriction.kind];
    return bars === 'everything' || (bars !== null && loads.includes(bars));
  }) ?? null;

/**
 * Reps a set that somebody may do: fewer on reduced volume, counted.
 *
 * @example
 * repsFor(8, [{ kind: 'reduced', from: '2031-03-01', until: null, share: 0.5 }], '2031-04-01') // 4
 */
export const repsFor = (
  reps: number,
  restrictions: readonly DatedRestriction[],
  on: string,
): number => {
  const shares = holding(restrictions, on).flatMap((restriction) =>
    restriction.kind === 'reduced' ? [restriction.share ?? USUAL_SHARE] : [],
  );
  return Math.ceil(reps * Math.min(1, ...shares) - 1e-9);
};

/** Until when, in words; pain waits to be cleared, and says so already. */
const untilWhen = ({ kind, until }: DatedRestriction): string =>
  until === null ? (kind === 'pain' ? '' : '; until cleared') : `; until ${until}`;

/**
 * Why, as a sentence about the athlete.
 *
 * @example
 * whyBarred('Ana', { kind: 'no-jumping', from: '2031-03-01', until: null })
 * // 'Ana may not jump, and this takes off and lands; until cleared.'
 */
export const whyBarred = (name: string, restriction: DatedRestriction): string =>
  `${name} ${WHY[restriction.kind]}${untilWhen(restriction)}.`;

/**
 * The rows with which athletes have left a session, by athlete: put out, or stopped by pain.
 *
 * @example
 * const row = { id: 'x', drillSetId: 'd', athleteId: 'a', set: 1, side: 'own', variant: '', rep: 1, watched: true, made: null,
 *   device: 'phone', deviceNo: 1, arrival: 1, voids: null, outcome: 'pain' };
 * leftBy([row]).get('a').id // 'x'
 */
export const leftBy = <R extends LogRow>(log: readonly R[]): Map<string, R> =>
  new Map(standing(log).flatMap((row) => (isLeaving(row) ? [[row.athleteId, row] as const] : [])));

/**
 * Who came late and joined a drill set, in the order in which they came; each with the row that says so.
 *
 * @example
 * const row = { id: 'x', drillSetId: 'd', athleteId: 'a', set: 1, side: 'own', variant: '', rep: 1, watched: true, made: null,
 *   device: 'phone', deviceNo: 1, arrival: 1, voids: null, outcome: 'pain' };
 * cameTo([{ ...row, outcome: 'in' }], 'd').has('a') // true
 */
export const cameTo = <R extends LogRow>(log: readonly R[], drillSetId: string): Map<string, R> =>
  new Map(
    inLogOrder(
      standing(log.filter((row) => row.drillSetId === drillSetId)).filter(
        (row) => row.outcome === 'in',
      ),
    ).map((row) => [row.athleteId, row] as const),
  );

/**
 * Why somebody has left, as a sentence.
 *
 * @example whyLeft('Bram', { outcome: 'pain' }) // 'Bram was stopped by pain; nothing until cleared.'
 */
export const whyLeft = (name: string, { outcome }: { outcome: Outcome }): string =>
  outcome === 'pain'
    ? `${name} was stopped by pain; nothing until cleared.`
    : `${name} is out for today.`;

/**
 * Why athletes do not take part in a drill set, by athlete: deleted, archived, or barred from what just
 * this asks of the body.
 *
 * @param on day of the session, yyyy-mm-dd
 */
export const passedOver = (
  athleteIds: readonly string[],
  people: readonly {
    id: string;
    name: string;
    archived: boolean;
    restrictions: readonly DatedRestriction[];
  }[],
  loads: readonly Load[],
  on: string,
): Map<string, string> => {
  const why = new Map<string, string>();
  for (const id of athleteIds) {
    const person = people.find((person) => person.id === id);
    if (!person) why.set(id, 'An athlete is not in the club any more.');
    else if (person.archived) why.set(id, `${person.name} was archived and is passed over.`);
    else {
      const barred = barredBy(loads, person.restrictions, on);
      if (barred) why.set(id, `${whyBarred(person.name, barred)} Passed over.`);
    }
  }
  return why;
};
