import { LENGTH_UNITS, type LengthUnit } from '@gravek/core/units';

export const UNIT_NAMES: Record<LengthUnit, string> = {
  metric: 'Metres',
  imperial: 'Feet and inches',
  yards: 'Yards',
  shoes: 'Shoe lengths',
};

export const UNITS = LENGTH_UNITS;
