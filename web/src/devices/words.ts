import type { MeasuredFigure, MeasuredSuggestion } from '@gravek/library';

const LINES: Record<MeasuredFigure, (seen: number, planned: number) => string> = {
  slowed: (seen, planned) =>
    `${seen.toFixed(1)} m/s at the end of a run that led to ${planned.toFixed(1)}`,
  'speed-over': (seen, planned) => `${seen.toFixed(1)} m/s where ${planned.toFixed(1)} is planned`,
  'cadence-under': (seen, planned) => `${Math.round(seen)} where ${Math.round(planned)} is planned`,
};

/** Why a measured run speaks for a fault. */
export const measuredWords = ({ figure, seen, planned }: MeasuredSuggestion): string =>
  LINES[figure](seen, planned);
