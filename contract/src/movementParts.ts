import { BODY_FIGURES } from '@gravek/core/body/bodyFigures';
import { POSTURE_MOMENTS } from '@gravek/core/body/keyframes';
import { SPAN_UNITS } from '@gravek/core/layout/body';
import { OTHERS } from '@gravek/core/layout/otherThings';
import { type Part, PART_KINDS } from '@gravek/core/layout/part';
import { BALL, type PhaseSteps } from '@gravek/core/layout/sequence';
import {
  type AnyObjectSchema,
  array,
  boolean,
  lazy,
  type MixedSchema,
  number,
  object,
  string,
} from 'yup';
import { choice, count, distinct, figure, foot, name, note } from './fields';
import { phaseSteps } from './phaseSchema';
import { posture } from './posture';

/** What a film or device can tell of a run by itself, each beside the plan. */
export const FAULT_FIGURES = [
  'first-step-shorter',
  'shortened-before',
  'short-steps-longer',
  'slowed',
  'last-step-longer',
  'over-line',
  'foot-ahead-of-hip',
  'drifted',
  'cadence-under',
  'speed-over',
] as const;
export type FaultFigure = (typeof FAULT_FIGURES)[number];

export const code = (what: string) =>
  string()
    .strict()
    .required(`${what} has no code.`)
    .max(60, `The code of ${what.toLowerCase()} is too long.`)
    .matches(
      /^[a-z0-9][a-z0-9-]{0,59}$/,
      `The code of ${what.toLowerCase()} may hold a–z, 0–9 and -.`,
    )
    // What is looked up by it would be found in every object.
    .notOneOf(['constructor'], `${what} cannot have the code “constructor”.`);

export const words = (what: string, max = 300) => name(what, max);

export const list = (what: string, max: number, most = 80) =>
  array(name(what, most)).required(`Give ${what}.`).max(max, `At most ${max} of them.`);

/** The code of something else in the movement. */
export const codeOf = (missing: string) => string().strict().required(missing).max(60, missing);

export const codes = (what: string) => distinct(codeOf(`${what}: one is missing.`), 30, what);

const anyLength = object({
  value: number().strict().required('A length is missing.').min(-60).max(60),
  of: choice('what the length is counted in', SPAN_UNITS),
});

const readOption = object({
  code: code('An exit'),
  name: name('the exit’s name'),
  /** what is seen when this is the right exit */
  when: words('when this exit is right'),
  to: codeOf('Say which phase this exit leads to.'),
  weight: figure('The weight', 0, 100),
});

export const turn = () => object({ deg: figure('The turn', 0, 360, '°'), to: foot('a side') });

export const phase = object({
  code: code('A phase'),
  name: name('the phase’s name', 60),
  // Yup cannot infer what `lazy` gives, so the type is stated.
  steps: phaseSteps as unknown as MixedSchema<PhaseSteps>,
  /** a foot may land twice running in it: a hop, a jab, a re-plant, a change of direction */
  again: boolean().strict().optional(),
  turn: turn().nullable().default(null),
  ball: string()
    .max(60, 'Choose what becomes of the ball.')
    .oneOf([...BALL], 'Choose what becomes of the ball.')
    .nullable()
    .default(null),
  /** code of the phase after this one, 'end', or null for the next in the list */
  then: string().max(60, 'Choose what comes next.').nullable().default(null),
  /** where the eyes are */
  eyes: note(120, 'the eyes'),
  checkpoints: array(
    object({
      look: name('what is looked at', 60),
      right: words('what right looks like', 200),
      /** what the drawn body must show of it, where it can be read off the side view */
      drawn: object({
        figure: choice('what is read off the body', BODY_FIGURES),
        of: choice('of which moment', POSTURE_MOMENTS),
        from: figure('The least', -180, 200),
        to: figure('The most', -180, 200),
      })
        .nullable()
        .default(undefined),
    }).required(),
  )
    .required('Checkpoints are missing.')
    .max(12, 'At most 12 checkpoints.'),
  /** how the body is held, seen from the side, where that is what counts */
  posture: posture().nullable().default(undefined),
  read: object({
    watch: words('what is watched'),
    options: array(readOption.required())
      .required('A read needs exits.')
      .max(12, 'At most 12 exits.'),
  })
    .nullable()
    .default(null),
});

export const partCode = () => codeOf('Choose a phase.');

export const fault = object({
  code: code('A fault'),
  name: name('the fault’s name', 60),
  /** what is seen */
  sees: words('what is seen'),
  /** what people say when they mean it */
  alsoCalled: array(name('what else it is called', 60)).max(12, 'At most 12 of them.').optional(),
  /** where it can be seen, on all exits and both sides; of a wrong answer the phases with its reads */
  phases: codes('Phases of the fault').min(1, 'Choose where the fault shows.'),
  /** it is a wrong answer to a read */
  read: boolean().strict().optional(),
  /** 1 small – 3 grave */
  severity: count('The severity', 1, 3),
  safety: boolean().strict().required(),
  /** what a film or device can measure of it */
  figure: string<FaultFigure>()
    .max(60, 'Choose what it is measured by.')
    .oneOf([...FAULT_FIGURES, null as never], 'Choose what it is measured by.')
    .nullable()
    .optional(),
  leadsTo: codes('Faults that it leads to'),
  cue: words('the cue', 80),
  drills: codes('Drills'),
});

const PARTS: Record<Part['kind'], AnyObjectSchema> = {
  all: object({ kind: choice('a part', ['all']) }),
  last: object({ kind: choice('a part', ['last']), steps: count('Steps', 1, 60) }),
  steps: object({
    kind: choice('a part', ['steps']),
    from: count('The first step', 1, 60),
    to: count('The last step', 1, 60),
  }).test('order', function order(value) {
    const { from, to } = value as unknown as { from: number; to: number };
    return (
      !(from > to) ||
      this.createError({ path: `${this.path}.to`, message: 'The last step is before the first.' })
    );
  }),
  phases: object({ kind: choice('a part', ['phases']), from: partCode(), to: partCode() }),
  'until-read': object({ kind: choice('a part', ['until-read']) }),
  hold: object({
    kind: choice('a part', ['hold']),
    step: count('The step to hold at', 1, 60),
    holdS: figure('The hold', 0, 60, ' s'),
  }),
};

export const part = lazy((value: unknown): AnyObjectSchema => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  return typeof kind === 'string' && Object.hasOwn(PARTS, kind)
    ? PARTS[kind as Part['kind']].required()
    : object({ kind: choice('a part', PART_KINDS) }).required();
});

export const other = object({
  kind: choice('what it is', OTHERS),
  name: name('its name', 40),
  /** start, end, or a phase by its code: where the body is at its first contact */
  from: codeOf('Choose from where it is set out.'),
  ahead: anyLength.required(),
  aside: anyLength.required(),
  to: foot('a side'),
  wideM: figure('Its width', 0, 60, ' m'),
  angleDeg: figure('Its angle', -90, 90, '°').optional(),
  /** what stands there for somebody for whom the movement is mirrored: third base for first base */
  twin: note(40, 'its name in the mirror').default(undefined),
  /** it stands where the usual way, that of the first exits, has its phase */
  usual: boolean().strict().optional(),
  /** only on a way that goes through this phase */
  only: codeOf('Choose a phase.').optional(),
  moves: object({
    ahead: anyLength.required(),
    aside: anyLength.required(),
    to: foot('a side'),
    speedMps: figure('Its speed', 0.1, 60, ' m/s'),
    afterS: figure('It starts after', 0, 30, ' s'),
  })
    .nullable()
    .default(null),
  /** it comes from there, and is in its place at the moment of its phase */
  comes: object({
    ahead: anyLength.required(),
    aside: anyLength.required(),
    to: foot('a side'),
    speedMps: figure('Its speed', 0.1, 60, ' m/s'),
  })
    .nullable()
    .default(undefined),
});
