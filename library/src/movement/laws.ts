import { type Body, bodyOf } from '@gravek/core/layout/body';
import { pathOf } from '@gravek/core/layout/sequence';
import type { Layout } from '@gravek/core/layout/shape';
import { counted } from '@gravek/core/words';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Movement } from '@gravek/contract/movement';
import { atPace } from '../planning/pace';
import { asTaught, laidOut } from '../planning/plan';
import { sequenceStart } from '../planning/planStart';
import { asDrilled } from './asDrilled';
import type { Way } from './footLaws';
import { isMirrored } from './sides';
import { WAY_LAWS } from './wayLaws';

/** A law of the ground, or of what may be said of it, that a movement breaks. */
export type Broken = {
  /** in a sentence for the coach who wrote the movement */
  sentence: string;
  /** for whom and on which way; empty where it holds for all */
  where: string;
};

// What holds for the movement as a whole.

const BUILT = new Set(['goal', 'bar', 'line', 'net', 'base']);

/** What is built does not grow with the athlete. */
const builtByBody = ({ others }: Pick<Movement, 'others'>): string[] =>
  others
    .filter(({ kind }) => BUILT.has(kind))
    .filter(({ ahead, aside }) => [ahead, aside].some(({ of, value }) => of !== 'm' && value !== 0))
    .map(
      ({ name }) => `The ${name} is built, and yet stands by the size of the athlete: use metres.`,
    );

const swapped = (text: string): string =>
  text.toLowerCase().replace(/left|right/g, (word) => (word === 'left' ? 'right' : 'left'));

/** Faults that an exit must be able to show at the least. */
const FEWEST_FAULTS = 3;

/** An exit can show what its twin of the other side can, and three faults at least. */
const exitsShow = ({ phases, faults }: Movement): string[] =>
  phases.flatMap(({ code, read }) => {
    const options = read?.options ?? [];
    const shownOn = (exit: string): string[] => {
      const path = pathOf(phases, { [code]: exit }).map((phase) => phase.code);
      return faults
        .filter((fault) => fault.phases.some((shows) => path.includes(shows)))
        .map((fault) => fault.name);
    };
    return options.flatMap((option) => {
      const shown = shownOn(option.code);
      const twin = options.find(
        (other) => other !== option && other.name.toLowerCase() === swapped(option.name),
      );
      const lost = (twin ? shownOn(twin.code) : []).filter((name) => !shown.includes(name));
      return [
        ...(lost.length > 0
          ? [`The exit “${option.name}” cannot show what its twin can: ${lost.join(', ')}.`]
          : []),
        ...(shown.length < FEWEST_FAULTS
          ? [`On the exit “${option.name}” only ${shown.length} faults can be seen.`]
          : []),
      ];
    });
  });

/** Each read has a fault for its wrong answer. */
const readsAnswered = ({ phases, faults }: Movement): string[] =>
  phases
    .filter(
      ({ code, read }) =>
        read && !faults.some((fault) => fault.read && fault.phases.includes(code)),
    )
    .map(({ name }) => `The read in “${name}” has no fault for a wrong answer.`);

/** Each fault has a place in the drawing: a foot that lands, or a body that is held, where it shows. */
const faultsPlaced = ({ phases, faults }: Movement): string[] => {
  const still = new Set(['read', 'hold']);
  const drawn = phases
    .filter(({ steps, posture }) => posture || !still.has(steps.kind))
    .map(({ code }) => code);
  return faults
    .filter((fault) => !fault.phases.some((code) => drawn.includes(code)))
    .map(({ name }) => `The fault “${name}” has no place in the drawing.`);
};

/** Each fault has a drill in which it shows. */
const faultsDrilled = (movement: Movement, body: Body): string[] =>
  movement.faults.flatMap((fault) => {
    const drills = movement.drills.filter(({ code }) => fault.drills.includes(code));
    if (drills.length === 0) return [`The fault “${fault.name}” has no drill.`];
    const isShown = drills.some((drill) => {
      if (fault.read) return true;
      const run = asDrilled(movement, drill.code);
      const shows = run.faults.find(({ code }) => code === fault.code)!.phases;
      const laid = laidOut(movement, body, { drill: drill.code }).phases.map(({ code }) => code);
      return shows.some((code) => laid.includes(code));
    });
    return isShown
      ? []
      : [`None of the drills against “${fault.name}” goes through where it shows.`];
  });

/** Faults that a drill can show at the least: as many as an exit where it has steps of its own, else the single thing it is for. */
const drillsShow = (movement: Movement, body: Body): string[] =>
  movement.drills.flatMap(({ code, name, phases }) => {
    const laid = laidOut(movement, body, { drill: code }).phases.map((phase) => phase.code);
    const shown = asDrilled(movement, code).faults.filter((fault) =>
      fault.phases.some((phase) => laid.includes(phase)),
    ).length;
    const fewest = phases?.length ? FEWEST_FAULTS : 1;
    return shown >= fewest
      ? []
      : [
          `In the drill “${name}” only ${counted(shown, 'fault')} can be seen: name it with the faults that it shows.`,
        ];
  });

const PACES = [0.25, 0.5, 0.75, 1];

/** Less of full speed is slower. */
const slowerIsSlower = (movement: Movement, body: Body): string[] =>
  movement.drills
    .filter((drill) => drill.speeds)
    .filter((drill) => {
      const tops = PACES.map((pace) => {
        const run = atPace(movement, { ...sequenceStart(), drill: drill.code }, pace);
        const { footfalls } = laidOut(movement, body, run as SequenceChoices);
        return Math.max(...footfalls.map((fall) => fall.speedMps));
      });
      return tops.some((top, i) => i > 0 && top <= tops[i - 1]!);
    })
    .map(({ name }) => `The drill “${name}” is no slower at a part of full speed.`);

/** Ways of a movement: exits, schools and drills, on both sides. */
const choicesOf = (movement: Movement): Pick<SequenceChoices, 'reads' | 'schools' | 'drill'>[] => {
  const exits: Record<string, string>[] = [
    {},
    ...movement.phases.flatMap((phase) =>
      (phase.read?.options ?? []).map((option) => ({ [phase.code]: option.code })),
    ),
  ];
  const schools: Record<string, string>[] = [
    {},
    ...movement.schools.flatMap(({ code, options }) =>
      options.slice(1).map((option) => ({ [code]: option.code })),
    ),
  ];
  return schools.flatMap((school) => [
    ...exits.map((reads) => ({ reads, schools: school, drill: null })),
    ...movement.drills.map((drill) => ({ reads: {}, schools: school, drill: drill.code })),
  ]);
};

/** Spots to be laid out at: the usual one, and where other steps are taken there, the other side of the place. */
const spotsToTry = ({ place }: Movement): (SequenceChoices['spot'] | undefined)[] => {
  const code = place?.spots.find(({ besideM }) => besideM > 0)?.code;
  return code && place?.otherSide
    ? [undefined, ...(['left', 'right'] as const).map((side) => ({ code, side }))]
    : [undefined];
};

const USUAL_BODIES: readonly Body[] = [
  bodyOf({
    trials: [],
    heightM: 1.75,
    legM: null,
    shoeM: null,
    hand: 'right',
    takeoffFoot: 'left',
  }),
  bodyOf({
    trials: [],
    heightM: 1.35,
    legM: null,
    shoeM: null,
    hand: 'left',
    takeoffFoot: 'right',
    ageYears: 10,
  }),
];

/**
 * The laws of the ground and of what is said of it that a movement breaks: for every exit, way of teaching and
 * drill, on both sides.
 *
 * @param bodies for whom it is laid out; a grown right-hander and a child where nothing is said
 * @returns each finding once, with the first way on which it was found
 * @example lawsBroken(movementOf('gaps')) // []: no foot on a bag, on another foot, or across the other
 */
export const lawsBroken = (
  movement: Movement,
  bodies: readonly Body[] = USUAL_BODIES,
): Broken[] => {
  const found = new Map<string, string>();
  const find = (sentence: string, where: string): void => {
    if (!found.has(sentence)) found.set(sentence, where);
  };
  for (const body of bodies) {
    for (const choices of choicesOf(movement)) {
      const drill = movement.drills.find(({ code }) => code === choices.drill) ?? null;
      const tries = spotsToTry(movement).flatMap((spot) =>
        (['own', 'other'] as const).map((side) => ({ side, spot })),
      );
      for (const { side, spot } of tries) {
        const at = spot ? `, ${spot.side} ${spot.code}` : '';
        const where = `${body.heightM} m, ${body.hand} hand, ${side} side${at}: ${JSON.stringify(choices)}`;
        let layout: Layout;
        try {
          layout = laidOut(movement, body, { ...choices, side, spot });
        } catch (error) {
          if (!(error instanceof RangeError)) throw error;
          find(`It cannot be laid out: ${error.message}.`, where);
          continue;
        }
        const mirrored = isMirrored(movement, body, side);
        const taught = asTaught(movement, { ...choices, spot }, mirrored);
        const way: Way = { movement: taught, body, layout, drill, where };
        for (const law of WAY_LAWS) for (const sentence of law(way)) find(sentence, where);
      }
    }
  }
  for (const sentence of [
    ...builtByBody(movement),
    ...builtByBody({ others: movement.place?.otherSide?.others ?? [] }),
    ...movement.drills.flatMap((drill) => builtByBody(asDrilled(movement, drill.code))),
    ...exitsShow(movement),
    ...readsAnswered(movement),
    ...faultsPlaced(movement),
    ...faultsDrilled(movement, bodies[0]!),
    ...drillsShow(movement, bodies[0]!),
    ...slowerIsSlower(movement, bodies[0]!),
  ]) {
    find(sentence, '');
  }
  return [...found].map(([sentence, where]) => ({ sentence, where }));
};
