import { seeded } from '../chance/random';
import type { Side } from './repLog';
import type { Foot } from '../feet';

/** What may differ from rep to rep of a drill set; an axis that is not varied is null, a pace of 1. */
export type Variant = {
  /** code of a move that is joined to an ending */
  move: string | null;
  ending: string | null;
  /** the exit that is asked, as `phase:option` */
  exit: string | null;
  /** the way of teaching, as `school:way`; null as it is planned */
  way: string | null;
  /** where on the ground it is done, by the coach's name for it */
  spot: string | null;
  side: Side;
  leadFoot: Foot | null;
  /** part of the planned speed */
  pace: number;
  rung: string | null;
};

/** What is chosen per axis; an empty list leaves it as it is planned. */
export type Axes = {
  moves: readonly string[];
  endings: readonly string[];
  exits: readonly string[];
  ways: readonly string[];
  spots: readonly string[];
  sides: readonly Side[];
  leadFeet: readonly Foot[];
  paces: readonly number[];
  rungs: readonly string[];
};

/** Axes, what was struck out of them, and in which order the rest is done. */
export type Varied = {
  vary: Axes;
  /** combinations that are left out, by `variantKey` and side */
  struck: readonly string[];
  order: 'blocked' | 'mixed';
  /** slower ones before faster ones, also where the order is mixed */
  slowFirst: boolean;
  /** fixes a mixed order */
  seed: number;
};

/** A drill set in which nothing differs from its plan. */
export const AS_PLANNED: Varied = {
  vary: {
    moves: [],
    endings: [],
    exits: [],
    ways: [],
    spots: [],
    sides: ['own'],
    leadFeet: [],
    paces: [1],
    rungs: [],
  },
  struck: [],
  order: 'blocked',
  slowFirst: true,
  seed: 1,
};

const KEYS = [
  ['move', 'move'],
  ['ending', 'end'],
  ['exit', 'exit'],
  ['way', 'way'],
  ['spot', 'spot'],
  ['leadFoot', 'lead'],
  ['rung', 'rung'],
] as const;

// Values stand between spaces, and a spot may be called by several words.
const written = (value: string): string => value.replaceAll(' ', '_');
const read = (value: string): string => value.replaceAll('_', ' ');

/**
 * A variant by its values, its side apart; empty when nothing differs from the plan.
 *
 * @example
 * const plain = variantFrom('', 'own');
 * variantKey({ ...plain, leadFoot: 'left', spot: 'left wing' }) // 'spot=left_wing lead=left'
 */
export const variantKey = (variant: Variant): string =>
  [
    ...KEYS.flatMap(([field, word]) =>
      variant[field] === null ? [] : [`${word}=${written(variant[field])}`],
    ),
    ...(variant.pace === 1 ? [] : [`pace=${variant.pace}`]),
  ].join(' ');

/**
 * A variant from its values as `variantKey` writes them. What cannot be read counts as planned.
 *
 * @example variantFrom('spot=left_wing pace=0.5', 'own').spot // 'left wing'
 */
export const variantFrom = (key: string, side: Side): Variant => {
  const said = new Map(
    key.split(' ').flatMap((part) => {
      const at = part.indexOf('=');
      return at < 0 ? [] : [[part.slice(0, at), part.slice(at + 1)] as const];
    }),
  );
  const pace = Number(said.get('pace') ?? 1);
  const lead = said.get('lead');
  return {
    move: said.get('move') ?? null,
    ending: said.get('end') ?? null,
    exit: said.get('exit') ?? null,
    way: said.get('way') ?? null,
    spot: said.has('spot') ? read(said.get('spot')!) : null,
    side,
    leadFoot: lead === 'left' || lead === 'right' ? lead : null,
    pace: pace > 0 && pace <= 1 ? pace : 1,
    rung: said.get('rung') ?? null,
  };
};

/**
 * What a struck combination is remembered by.
 *
 * @example struckKey(variantFrom('spot=wing', 'other')) // 'other spot=wing'
 */
export const struckKey = (variant: Variant): string => `${variant.side} ${variantKey(variant)}`;

const orNone = <T>(list: readonly T[]): readonly (T | null)[] => (list.length > 0 ? list : [null]);

/**
 * Every combination of the axes, struck ones too: speeds outermost, slow before fast, then rungs as they
 * are listed, ways of teaching, spots, moves, endings, exits, lead feet, sides.
 *
 * @example
 * variantsOf({ ...AS_PLANNED.vary, spots: ['wing', 'top'], sides: ['own', 'other'] }).length // 4
 */
export const variantsOf = (axes: Axes): Variant[] => {
  const paces = axes.paces.length > 0 ? [...new Set(axes.paces)].sort((a, b) => a - b) : [1];
  const sides = axes.sides.length > 0 ? axes.sides : (['own'] as const);
  return paces.flatMap((pace) =>
    orNone(axes.rungs).flatMap((rung) =>
      orNone(axes.ways).flatMap((way) =>
        orNone(axes.spots).flatMap((spot) =>
          orNone(axes.moves).flatMap((move) =>
            orNone(axes.endings).flatMap((ending) =>
              orNone(axes.exits).flatMap((exit) =>
                orNone(axes.leadFeet).flatMap((leadFoot) =>
                  sides.map((side) => ({
                    ...{ move, ending, exit, way, spot, side, leadFoot, pace, rung },
                  })),
                ),
              ),
            ),
          ),
        ),
      ),
    ),
  );
};

/**
 * The combinations that are done: all that were not struck out.
 *
 * @example
 * keptVariants({ vary: { ...AS_PLANNED.vary, spots: ['wing', 'top'] }, struck: ['own spot=wing'] }).length // 1
 */
export const keptVariants = ({ vary, struck }: Pick<Varied, 'vary' | 'struck'>): Variant[] => {
  const out = new Set(struck);
  return variantsOf(vary).filter((variant) => !out.has(struckKey(variant)));
};

/** One rep of a round, whoever does it. */
export type Slot = {
  variant: Variant;
  /** the how-manieth rep of this variant in the round, from 1 */
  rep: number;
};

const shuffled = <T>(list: readonly T[], next: () => number): T[] => {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i -= 1) {
    const j = Math.floor(next() * (i + 1));
    [out[i], out[j]] = [out[j]!, out[i]!];
  }
  return out;
};

/** Every variant once a pass, pass after pass, so that none is done twice running where there are two. */
const mixed = (variants: readonly Variant[], reps: number, next: () => number): Slot[] => {
  const slots: Slot[] = [];
  for (let rep = 1; rep <= reps; rep += 1) {
    const pass = shuffled(variants, next);
    if (pass.length > 1 && pass[0] === slots.at(-1)?.variant) {
      const other = 1 + Math.floor(next() * (pass.length - 1));
      [pass[0], pass[other]] = [pass[other]!, pass[0]!];
    }
    slots.push(...pass.map((variant) => ({ variant, rep })));
  }
  return slots;
};

/**
 * The reps of a round in order, the same on every device. Blocked: all reps of one combination, then the
 * next. Mixed: by the seed, no combination twice running unless there is only one; slow ones first
 * where that is asked, so that the last are the fastest.
 *
 * @param reps of each combination; 1–100
 * @param round from 1
 * @example
 * slotsOf({ ...AS_PLANNED, vary: { ...AS_PLANNED.vary, sides: ['own', 'other'] } }, 2, 1).map(({ rep }) => rep)
 * // [1, 2, 1, 2]
 */
export const slotsOf = (set: Varied, reps: number, round: number): Slot[] => {
  const variants = keptVariants(set);
  if (set.order === 'mixed') {
    const next = seeded(set.seed * 101 + round);
    if (!set.slowFirst) return mixed(variants, reps, next);
    const paces = [...new Set(variants.map((variant) => variant.pace))].sort((a, b) => a - b);
    return paces.flatMap((pace) =>
      mixed(
        variants.filter((variant) => variant.pace === pace),
        reps,
        next,
      ),
    );
  }
  const inOrder = set.slowFirst ? variants : [...variants].sort((a, b) => b.pace - a.pace);
  return inOrder.flatMap((variant) =>
    Array.from({ length: reps }, (_, i) => ({ variant, rep: i + 1 })),
  );
};
