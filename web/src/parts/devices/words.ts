import { formatSpeed, type LengthUnit } from '@gravek/core/units';
import type { MeasuredFigure, MeasuredSuggestion } from '@gravek/library/measuring/measuredRows';

const LINES: Record<MeasuredFigure, (seen: number, planned: number, unit: LengthUnit) => string> = {
  slowed: (seen, planned, unit) =>
    `${formatSpeed(seen, unit)} at the end of a run that led to ${formatSpeed(planned, unit)}`,
  'speed-over': (seen, planned, unit) =>
    `${formatSpeed(seen, unit)} where ${formatSpeed(planned, unit)} is planned`,
  'cadence-under': (seen, planned) => `${Math.round(seen)} where ${Math.round(planned)} is planned`,
};

/** Why a measured run speaks for a fault. */
export const measuredWords = (
  { figure, seen, planned }: MeasuredSuggestion,
  unit: LengthUnit,
): string => LINES[figure](seen, planned, unit);
