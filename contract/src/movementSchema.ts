import { number, object, string, ValidationError } from 'yup';
import { choice, count, id, version } from './fields';
import { movementShape, type Movement } from './movement';
import { looseEnds } from './movementChecks';

const hasParts = (value: unknown): value is Movement =>
  typeof value === 'object' &&
  value !== null &&
  ['phases', 'faults', 'drills', 'schools'].every((key) =>
    Array.isArray((value as Record<string, unknown>)[key]),
  );

/** Longest movement that is kept or read from a file, bytes. */
export const MOVEMENT_MAX = 400_000;

/** Length of a value as JSON in UTF-8. */
const bytesOf = (value: unknown): number => {
  let bytes = 0;
  for (const sign of JSON.stringify(value)) {
    const number = sign.codePointAt(0)!;
    bytes += number < 0x80 ? 1 : number < 0x800 ? 2 : number < 0x10000 ? 3 : 4;
  }
  return bytes;
};

/** A movement: what is planned, what a coach looks at, phase by phase, and how it is taught. */
export const movementSchema = movementShape
  .test(
    'size',
    `This movement is too large: at most ${MOVEMENT_MAX / 1000} kB are kept.`,
    (value) => bytesOf(value ?? null) <= MOVEMENT_MAX,
  )
  .test('hangs-together', function hangsTogether(value): true | ValidationError {
    const movement = value as unknown;
    // What is broken in itself is told by its own check; this one waits until it can look.
    if (!hasParts(movement) || !movementShape.isValidSync(value)) return true;
    const errors = Object.entries(looseEnds(movement)).map(([path, message]) =>
      this.createError({ path: this.path ? `${this.path}.${path}` : path, message }),
    );
    return errors.length === 0 ? true : new ValidationError(errors, value, this.path || undefined);
  });

export const MOVEMENT_FILE_VERSION = 2;

/** A movement by itself as one JSON document; see docs/file-format.md. */
export const movementFile = object({
  format: choice('the format', ['gravek-movement'] as const),
  version: number()
    .strict()
    .required('The file does not say its version.')
    .max(
      MOVEMENT_FILE_VERSION,
      'This file was made by a newer Gravek. Update Gravek, then read it in.',
    ),
  movement: movementSchema.required('The file holds no movement.'),
});

const basis = object({
  code: string().strict().required().max(60, 'That is no movement.'),
  revision: count('The revision', 1, 100_000),
});

export const movementInput = object({
  id: id(),
  /** the built-in movement that it was copied from, as it stood then */
  basedOn: basis.nullable().defined(),
  movement: movementSchema.required('The movement is missing.'),
});

export const movementUpdate = object({
  version: version(),
  basedOn: basis.nullable().defined(),
  movement: movementSchema.required('The movement is missing.'),
});

/** A movement of the club's own; its code is its id. */
export type ClubMovement = {
  id: string;
  basedOn: { code: string; revision: number } | null;
  movement: Movement;
  version: number;
  archived: boolean;
};
