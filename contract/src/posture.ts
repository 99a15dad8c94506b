import { POSTURE_LOOKS, type Posture } from '@gravek/core/sideView';
import { object, type MixedSchema } from 'yup';
import { choice, distinct, figure } from './fields';

const leg = (which: string) =>
  object({
    thighDeg: figure(`${which}: the thigh`, -90, 140, '°'),
    shinDeg: figure(`${which}: the shin`, -90, 130, '°'),
    ankleDeg: figure(`${which}: the ankle`, 50, 175, '°'),
  });

const pose = () =>
  object({
    trunkDeg: figure('The trunk', -45, 100, '°'),
    stance: leg('The leg it stands on').required(),
    free: leg('The other leg').required(),
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
  }) as unknown as MixedSchema<Posture>;
