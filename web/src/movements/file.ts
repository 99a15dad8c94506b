import type { Movement } from '@gravek/contract/movement';
import { MOVEMENT_MAX, MOVEMENT_FILE_VERSION, movementFile } from '@gravek/contract/movementSchema';
import { check } from '@gravek/contract/problem';
import { withFaultPhases } from '@gravek/library/movement/olderMovement';

export type ReadFile = { ok: true; movement: Movement } | { ok: false; message: string };

const SHOWN = 4;

/** Reads a movement file as docs/file-format.md describes it, or says why it cannot be read. */
export const readMovementFile = (text: string): ReadFile => {
  if (new Blob([text]).size > MOVEMENT_MAX) {
    return {
      ok: false,
      message: `This file is too large for a movement: at most ${MOVEMENT_MAX / 1000} kB are read.`,
    };
  }
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    return { ok: false, message: 'This is no movement file: it cannot be read as JSON.' };
  }
  // A file of a newer version says so before anything in it is judged.
  const { version } = (read ?? {}) as { version?: unknown };
  if (typeof version === 'number' && version > MOVEMENT_FILE_VERSION) {
    return {
      ok: false,
      message: 'This file was made by a newer Gravek. Update Gravek, then read it in.',
    };
  }
  const file = read as { movement?: unknown } | null;
  const checked = check(
    movementFile,
    file?.movement === undefined ? read : { ...file, movement: withFaultPhases(file.movement) },
  );
  if (checked.ok) return { ok: true, movement: checked.value.movement as unknown as Movement };
  const faults = Object.entries(checked.fields);
  const more = faults.length > SHOWN ? ` And ${faults.length - SHOWN} more.` : '';
  return {
    ok: false,
    message: `This movement file is broken: ${faults
      .slice(0, SHOWN)
      .map(([path, why]) => (path ? `${path.replace(/^movement\./, '')}: ${why}` : why))
      .join(' ')}${more} Nothing was changed.`,
  };
};

/** The movement as a file to save. */
export const movementFileText = (movement: Movement): string =>
  `${JSON.stringify({ format: 'gravek-movement', version: MOVEMENT_FILE_VERSION, movement }, null, 2)}\n`;
