/** What one parameter of a phase or a rule may be; the form and the check are both made from it. */
export type ParameterField =
  /** a length: bounds in metres for a usual body */
  | { type: 'span'; label: string; minM: number; maxM: number; maybe?: true }
  | { type: 'count'; label: string; min: number; max: number }
  /** maybe: 0 where it is left out */
  | { type: 'figure'; label: string; min: number; max: number; unit: string; maybe?: true }
  | {
      type: 'choice';
      label: string;
      options: readonly (readonly [string | number, string])[];
      maybe?: true;
    }
  | { type: 'flag'; label: string }
  | { type: 'text'; label: string }
  | { type: 'group'; label: string; fields: ParameterFields }
  | { type: 'list'; label: string; fields: ParameterFields; max: number };

export type ParameterFields = Readonly<Record<string, ParameterField>>;

const plainValue = (field: ParameterField): unknown => {
  switch (field.type) {
    case 'span':
      return field.maybe
        ? null
        : { value: Math.max(field.minM, Math.min(0.5, field.maxM)), of: 'm' };
    case 'count':
      return Math.max(field.min, Math.min(2, field.max));
    case 'figure':
      if (field.maybe) return 0;
      return field.unit === 'steps/min'
        ? 200
        : Math.max(
            field.min,
            Math.min(field.unit === 's' ? 0.3 : field.unit === '' ? 1 : 30, field.max),
          );
    case 'choice':
      return field.maybe ? null : field.options[0]![0];
    case 'flag':
      return false;
    case 'text':
      return 'mark';
    case 'group':
      return null;
    case 'list':
      return [plainValues(field.fields)];
  }
};

/** Something to begin with for every parameter of a list. */
export const plainValues = (fields: ParameterFields): Record<string, unknown> =>
  Object.fromEntries(Object.entries(fields).map(([key, field]) => [key, plainValue(field)]));
