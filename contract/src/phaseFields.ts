import type { ParameterField } from './parameters';

export const FEET = [
  ['left', 'left'],
  ['right', 'right'],
] as const;
const WAYS_NAMED = [
  ['ahead', 'ahead'],
  ['back', 'back'],
  ['left', 'to the left'],
  ['right', 'to the right'],
] as const;

export const foot = (label: string): ParameterField => ({ type: 'choice', label, options: FEET });
export const maybeFoot = (label: string): ParameterField => ({
  type: 'choice',
  label,
  options: FEET,
  maybe: true,
});
export const way = (label: string): ParameterField => ({
  type: 'choice',
  label,
  options: WAYS_NAMED,
});
export const feetOrBoth = (label: string): ParameterField => ({
  type: 'choice',
  label,
  options: [...FEET, ['both', 'both']],
});
export const length = (label: string, minM = 0, maxM = 4): ParameterField => ({
  type: 'span',
  label,
  minM,
  maxM,
});
export const cadence: ParameterField = {
  type: 'figure',
  label: 'Cadence',
  min: 20,
  max: 900,
  unit: 'steps/min',
};
export const toes = (label: string): ParameterField => ({
  type: 'figure',
  label,
  min: -60,
  max: 90,
  unit: '°',
  maybe: true,
});
export const seconds = (label: string, max = 5): ParameterField => ({
  type: 'figure',
  label,
  min: 0.05,
  max,
  unit: 's',
});
export const degrees = (label: string, max = 360): ParameterField => ({
  type: 'figure',
  label,
  min: 0,
  max,
  unit: '°',
});
export const steps = (label = 'Steps', min = 1): ParameterField => ({
  type: 'count',
  label,
  min,
  max: 40,
});
