import { type Posture, POSTURE_LOOKS } from '@gravek/core/body/keyframes';
import { boolean, type MixedSchema, object } from 'yup';
import { choice, distinct, figure } from './fields';

const leg = (which: string) =>
  object({
    thighDeg: figure(`${which}: the thigh`, -90, 140, '°'),
    shinDeg: figure(`${which}: the shin`, -90, 130, '°'),
    ankleDeg: figure(`${which}: the ankle`, 50, 175, '°'),
  });

const arm = (which: string) =>
  object({
    raiseDeg: figure(`${which}: the upper arm`, -180, 200, '°'),
    elbowDeg: figure(`${which}: the elbow`, 20, 180, '°'),
    asideDeg: figure(`${which}: out to the side`, -40, 90, '°'),
    foreAsideDeg: figure(`${which}: the forearm out to the side`, -90, 90, '°').optional(),
  });

const pose = () =>
  object({
    trunkDeg: figure('The trunk', -100, 120, '°'),
    stance: leg('The leg it stands on').required(),
    free: leg('The other leg').required(),
    arms: object({
      stance: arm('The arm on the side of the leg it stands on').required(),
      free: arm('The other arm').required(),
    })
      .nullable()
      .default(undefined),
    archDeg: figure('The arch of the back', -90, 90, '°').optional(),
  });

/** How the body is held in a phase, seen from the side. */
export const posture = () =>
  // The type is stated: a list of choices is inferred as one of words.
  object({
    looks: distinct(choice('what is looked at', POSTURE_LOOKS), POSTURE_LOOKS.length, 'Looks').min(
      1,
      'Say what is looked at from the side.',
    ),
    contact: pose().required(),
    last: pose().nullable().default(null),
    push: pose().nullable().default(null),
    front: boolean().strict().optional(),
    wall: boolean().strict().optional(),
    boxM: figure('The box', 0.05, 1.2, ' m').optional(),
    liftM: figure('Off the ground', 0, 3, ' m').optional(),
  }) as unknown as MixedSchema<Posture>;
