import { type Foot, otherFoot } from '@gravek/core/feet';
import type { OtherThing } from '@gravek/core/layout/otherThings';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { OnGround } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import { phasesOtherwise } from '../movement/schools';
import { WRITTEN_BASES_M } from './onGround';

type MovementPlace = NonNullable<Movement['place']>;
type Spot = MovementPlace['spots'][number];
/** Where in its place a movement is done, and on which side of it. */
export type SpotChoice = NonNullable<SequenceChoices['spot']>;

type Kind = MovementPlace['kind'];

/** What is usual where the ground does not say, metres. */
const USUAL_RIM = { outM: 1.6, laneM: 4.9, laneOutM: 5.8 };
const USUAL_NET = { wideM: 9, lineM: 3 };
const USUAL_GOAL_M = 3;
const RIM_WIDE_M = 0.45;
/** The block on either side of the lane: from the end line to its middle, and how long it is, metres. */
const BLOCK = { outM: 2.4, longM: 0.45 };

/** A point of the place: beside to the right as one faces it, out from its line; metres. */
type Point = { besideM: number; outM: number };

type Built = Point & {
  kind: OtherThing['kind'];
  name: string;
  wideM: number;
  /** how far it is turned from lying across the way out */
  angleDeg: number;
};

/** What is before the athlete on a ground: a movement for a rim is done at a goal where there is no rim. */
const kindOn = ({ kind }: MovementPlace, ground: OnGround | null | undefined): Kind => {
  if (kind === 'net' || kind === 'diamond' || !ground) return kind;
  if (ground.rim) return 'rim';
  return ground.goalM ? 'goal' : kind;
};

/** All that is built in a place. */
const builtOf = (kind: Kind, ground: OnGround | null | undefined): Built[] => {
  const across = (what: Built['kind'], name: string, outM: number, wideM: number): Built => ({
    ...{ kind: what, name, besideM: 0, outM, wideM, angleDeg: 0 },
  });
  if (kind === 'net') {
    const { wideM, lineM } = ground?.net ?? USUAL_NET;
    return [across('net', 'net', 0, wideM), across('line', `${lineM} m line`, lineM, wideM)];
  }
  if (kind === 'diamond') {
    const wideM = ground?.baseM ?? WRITTEN_BASES_M;
    const offM = wideM / Math.SQRT2 / 2;
    return [
      { besideM: -offM, outM: offM, angleDeg: -45 },
      { besideM: offM, outM: offM, angleDeg: 45 },
      { besideM: -offM, outM: 3 * offM, angleDeg: 45 },
      { besideM: offM, outM: 3 * offM, angleDeg: -45 },
    ].map((line): Built => ({ kind: 'line', name: 'base line', wideM, ...line }));
  }
  if (kind === 'goal') return [across('goal', 'goal', 0, ground?.goalM ?? USUAL_GOAL_M)];
  const { outM, laneM, laneOutM } = ground?.rim ?? USUAL_RIM;
  const sides = [-laneM / 2, laneM / 2].flatMap((besideM): Built[] => [
    {
      ...{ kind: 'line', name: 'lane', besideM, outM: laneOutM / 2 },
      ...{ wideM: laneOutM, angleDeg: -90 },
    },
    {
      ...{ kind: 'line', name: 'block', outM: BLOCK.outM, wideM: BLOCK.longM, angleDeg: -90 },
      besideM: besideM + Math.sign(besideM) * 0.1,
    },
  ]);
  return [
    across('goal', 'rim', outM, RIM_WIDE_M),
    across('line', 'end line', 0, laneM),
    across('line', 'lane', laneOutM, laneM),
    ...sides,
  ];
};

const RADIANS = Math.PI / 180;

/** An angle from −90 to 90 degrees: a line has no direction. */
const asLineDeg = (deg: number): number => deg - 180 * Math.ceil((deg - 90) / 180);

/** A spot with its place on the ground, and the way that one faces there, from straight at the line of the place. */
const spotOn = (
  spot: Spot,
  kind: Kind,
  ground: OnGround | null | undefined,
  side: 1 | -1,
): Point & { facingDeg: number } => {
  const at = (kind === 'goal' && spot.onGoal) || spot;
  const part = kind === 'diamond' ? (ground?.baseM ?? WRITTEN_BASES_M) / WRITTEN_BASES_M : 1;
  const besideM = side * at.besideM * part;
  const outM = at.outM * part;
  if (kind === 'net') return { besideM, outM, facingDeg: side * spot.faceDeg };
  const middleOutM = kind === 'rim' ? (ground?.rim ?? USUAL_RIM).outM : 0;
  const towards = Math.atan2(-besideM, outM - middleOutM) / RADIANS;
  return { besideM, outM, facingDeg: towards + side * spot.faceDeg };
};

/**
 * What goes to the middle on one side of the place goes to its end on the other: steps of such phases change over,
 * and whoever and whatever stands by them.
 */
const swapped = (movement: Movement, swaps: NonNullable<MovementPlace['swaps']>): Movement => {
  const twinOf = <C extends string | undefined>(code: C): C => {
    const pair = swaps.find(({ a, b }) => a === code || b === code);
    return (pair ? (pair.a === code ? pair.b : pair.a) : code) as C;
  };
  return {
    ...movement,
    phases: movement.phases.map((phase) => {
      const { steps, turn } =
        movement.phases.find(({ code }) => code === twinOf(phase.code)) ?? phase;
      return { ...phase, steps, turn };
    }),
    others: movement.others.map((other) => ({
      ...other,
      ...{ from: twinOf(other.from), only: twinOf(other.only) },
    })),
  };
};

/** The side of its place on which a movement is done, as the movement has it before any mirror. */
const sideAsWritten = (
  place: MovementPlace,
  spot: SpotChoice | null | undefined,
  mirrored: boolean,
): Foot => (spot?.side && (mirrored ? otherFoot(spot.side) : spot.side)) ?? place.writtenOn;

/**
 * A movement with the steps and words of the side of its place on which it is done.
 *
 * @param spot null for the side for which it is written
 * @param mirrored whether the movement is seen in the mirror for the athlete: the place is not
 * @param ways by which it is taught, each as `school:way`
 * @example onSpotSide(cornerFielder, { code: 'corner', side: 'left' }, false, []).code // 'corner-fielder'
 */
export const onSpotSide = (
  movement: Movement,
  spot: SpotChoice | null | undefined,
  mirrored: boolean,
  ways: readonly string[],
): Movement => {
  const { place } = movement;
  if (!place || sideAsWritten(place, spot, mirrored) === place.writtenOn) return movement;
  const swappedMovement = swapped(movement, place.swaps ?? []);
  const { otherSide } = place;
  if (!otherSide) return swappedMovement;
  const changes = otherSide.changes.filter(({ taughtBy }) => !taughtBy || ways.includes(taughtBy));
  return {
    ...swappedMovement,
    phases: phasesOtherwise(swappedMovement.phases, { ...otherSide, changes }),
    others: otherSide.others.length > 0 ? otherSide.others : swappedMovement.others,
  };
};

/** Kinds of things that stand there by themselves where no spot is chosen. */
const BY_PLACE: readonly OtherThing['kind'][] = ['goal', 'net'];

/**
 * What is built in the place of a movement, as the athlete has it from the spot, in metres whoever runs.
 *
 * @param movement on the side of its place on which it is done
 * @param spot null for the first one, on the athlete's own side; where the movement itself says where its goal
 *   is, it stays there
 * @example inPlace(postFootwork, null, { code: 'block', side: 'left' }, false).others.some(({ name }) => name === 'rim') // true
 */
export const inPlace = (
  movement: Movement,
  ground: OnGround | null | undefined,
  spot: SpotChoice | null | undefined,
  mirrored: boolean,
): Movement => {
  const { place } = movement;
  if (!place) return movement;
  const isSaid = movement.others.some(({ kind }) => BY_PLACE.includes(kind));
  if (isSaid && !spot) return movement;
  const chosen = place.spots.find(({ code }) => code === spot?.code) ?? place.spots[0]!;
  // The engine mirrors all of it afterwards.
  const side = sideAsWritten(place, spot, mirrored) === 'right' ? 1 : -1;
  const kind = kindOn(place, ground);
  const { facingDeg, ...from } = spotOn(chosen, kind, ground, side);
  const [sin, cos] = [Math.sin(facingDeg * RADIANS), Math.cos(facingDeg * RADIANS)];
  const things = builtOf(kind, ground).map((built): OtherThing => {
    const besideM = built.besideM - from.besideM;
    const towardsM = from.outM - built.outM;
    const metres = (value: number) => ({ value: Number(value.toFixed(4)), of: 'm' as const });
    return {
      ...{ kind: built.kind, name: built.name, from: place.at, to: 'right', moves: null },
      usual: true,
      ahead: metres(besideM * sin + towardsM * cos),
      aside: metres(besideM * cos - towardsM * sin),
      wideM: built.wideM,
      angleDeg: asLineDeg(built.angleDeg - facingDeg),
    };
  });
  return {
    ...movement,
    others: [
      ...movement.others.filter(({ kind: otherKind }) => !BY_PLACE.includes(otherKind)),
      ...things,
    ],
  };
};

/** A spot as a coach calls it: `left block`, or `arc` where it lies before the middle. */
export type NamedSpot = { name: string; choice: SpotChoice; at: Point };

/**
 * All spots at which a movement may be done on a ground, by name; empty where it has no place.
 *
 * @example spotsOf(cornerFielder).map(({ name }) => name) // ['first base', 'third base']
 */
export const spotsOf = (
  { place }: Pick<Movement, 'place'>,
  ground: OnGround | null | undefined = null,
): NamedSpot[] =>
  (place?.spots ?? []).flatMap((spot): NamedSpot[] => {
    const kind = kindOn(place!, ground);
    const spotOnSide = (side: Foot | null): NamedSpot => {
      const { besideM, outM } = spotOn(spot, kind, ground, side === 'left' ? -1 : 1);
      const called = side === place!.writtenOn ? spot.name : spot.twin;
      const name = spot.twin ? called! : side ? `${side} ${spot.name}` : spot.name;
      return { name, choice: { code: spot.code, side }, at: { besideM, outM } };
    };
    return spot.besideM === 0 ? [spotOnSide(null)] : [spotOnSide('left'), spotOnSide('right')];
  });

/**
 * The spot that a coach calls so; undefined where the movement has none of that name.
 *
 * @example spotCalled(cornerFielder, 'third base') // { code: 'corner', side: 'right' }
 */
export const spotCalled = (
  movement: Pick<Movement, 'place'>,
  name: string | null,
): SpotChoice | undefined => spotsOf(movement).find((spot) => spot.name === name)?.choice;

/**
 * What a place looks like from above, for spots to be drawn in it: its lines by their two ends, metres.
 *
 * @example
 * placeLines(postFootwork.place).map(({ name }) => name)
 * // ['rim', 'end line', 'lane', 'lane', 'block', 'lane', …]
 */
export const placeLines = (
  place: MovementPlace,
  ground: OnGround | null | undefined = null,
): { name: string; ends: [Point, Point] }[] =>
  builtOf(kindOn(place, ground), ground).map(({ name, besideM, outM, wideM, angleDeg }) => {
    const end = (part: number): Point => ({
      besideM: besideM + part * wideM * Math.cos(angleDeg * RADIANS),
      outM: outM + part * wideM * Math.sin(angleDeg * RADIANS),
    });
    return { name, ends: [end(-0.5), end(0.5)] };
  });
