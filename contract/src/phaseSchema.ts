import type { PhaseKind } from '@gravek/core/layout/sequence';
import { lazy, object } from 'yup';
import { choice } from './fields';
import { shapeOf } from './parameterSchema';
import { PHASE_KINDS } from './phaseKinds';

const kinds = Object.keys(PHASE_KINDS) as PhaseKind[];

const SCHEMAS = Object.fromEntries(
  kinds.map((kind) => [
    kind,
    object({ kind: choice('a kind of step', [kind]), ...shapeOf(PHASE_KINDS[kind].fields) }),
  ]),
);

/** The steps of a phase, by their kind. */
export const phaseSteps = lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  return (
    (typeof kind === 'string' && Object.hasOwn(SCHEMAS, kind) && SCHEMAS[kind]) ||
    object({ kind: choice('a kind of step', kinds) })
  ).required('The steps of this phase are missing.');
});
