import { type Span, SPAN_UNITS, usualM } from '@gravek/core/layout/body';
import { array, boolean, type ISchema, mixed, number, object, string } from 'yup';
import { choice, count, figure, name } from './fields';
import type { ParameterField, ParameterFields } from './parameters';

const span = (field: Extract<ParameterField, { type: 'span' }>) => {
  const schema = object({
    value: number()
      .strict()
      .typeError(`${field.label} must be a number.`)
      .required(`${field.label} is missing.`),
    of: choice('what the length is counted in', SPAN_UNITS),
  }).test('possible', function possible(value) {
    const length = value as unknown as Span | null;
    if (!length || typeof length.value !== 'number' || !SPAN_UNITS.includes(length.of)) return true;
    const metres = usualM(length);
    if (metres >= field.minM - 1e-9 && metres <= field.maxM + 1e-9) return true;
    return this.createError({
      path: `${this.path}.value`,
      message: `${field.label} of ${length.value} ${length.of === 'm' ? 'm' : `× ${length.of}`} cannot be: for a usual body it must lie between ${field.minM} and ${field.maxM} m.`,
    });
  });
  return field.maybe
    ? schema.nullable().default(null)
    : schema.default(undefined).required(`${field.label} is missing.`);
};

const schemaOf = (field: ParameterField): ISchema<unknown> => {
  switch (field.type) {
    case 'span':
      return span(field);
    case 'count':
      return count(field.label, field.min, field.max);
    case 'figure': {
      const schema = figure(field.label, field.min, field.max, field.unit && ` ${field.unit}`);
      return field.maybe ? schema.optional() : schema;
    }
    case 'choice': {
      const values = field.options.map(([value]) => value);
      const what = field.label.toLowerCase();
      if (values.every((value) => typeof value === 'number'))
        return number().strict().oneOf(values, `Choose ${what}.`).required(`Choose ${what}.`);
      const words = values.map(String);
      return field.maybe
        ? string()
            .max(60, `Choose ${what}.`)
            .oneOf(words, `Choose ${what}.`)
            .nullable()
            .default(null)
        : choice(what, words);
    }
    case 'flag':
      return boolean().strict().required(`${field.label}: yes or no.`);
    case 'text':
      return name(field.label.toLowerCase(), 40);
    case 'group':
      return object(shapeOf(field.fields)).nullable().default(null);
    case 'list':
      return array(object(shapeOf(field.fields)).required())
        .required(`${field.label} are missing.`)
        .min(1, 'At least one step must be called.')
        .max(field.max, `At most ${field.max} of them.`);
  }
};

/** The shape of an object with such parameters, for its check. */
export const shapeOf = (fields: ParameterFields) =>
  Object.fromEntries(
    Object.entries(fields).map(([key, field]) => [key, schemaOf(field)]),
  ) as Record<string, ReturnType<typeof mixed>>;
