/** Guards shared by every public function: a bad input throws a RangeError that names the field. */

export type Bounds = { min?: number; max?: number; above?: number };

/**
 * Checks a finite number against bounds and gives it back.
 *
 * @throws {RangeError} `<field> must be …, got <value>`
 * @example number('steps', 3.5, { min: 1, max: 60 }) // 3.5
 */
export const number = (field: string, value: unknown, bounds: Bounds = {}): number => {
  if (typeof value !== 'number' || !Number.isFinite(value)) {
    throw new RangeError(`${field} must be a number, got ${String(value)}`);
  }
  const { min, max, above } = bounds;
  if (above !== undefined && value <= above) {
    throw new RangeError(`${field} must be more than ${above}, got ${value}`);
  }
  if (min !== undefined && value < min) {
    throw new RangeError(`${field} must be at least ${min}, got ${value}`);
  }
  if (max !== undefined && value > max) {
    throw new RangeError(`${field} must be at most ${max}, got ${value}`);
  }
  return value;
};

/**
 * As `number`, and whole.
 *
 * @example whole('steps', 14, { min: 1, max: 60 }) // 14
 */
export const whole = (field: string, value: unknown, bounds: Bounds = {}): number => {
  const checked = number(field, value, bounds);
  if (!Number.isInteger(checked)) {
    throw new RangeError(`${field} must be a whole number, got ${checked}`);
  }
  return checked;
};

/**
 * Checks that a value is one of a short list and gives it back.
 *
 * @example oneOf('foot', 'left', ['left', 'right']) // 'left'
 */
export const oneOf = <T extends string>(
  field: string,
  value: unknown,
  allowed: readonly T[],
): T => {
  if (!allowed.includes(value as T)) {
    throw new RangeError(`${field} must be one of ${allowed.join(', ')}, got ${String(value)}`);
  }
  return value as T;
};
