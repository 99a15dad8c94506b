import { formatLength, formatSpeed, type LengthStyle } from '@gravek/core/units';
import type { FaultFigure } from '@gravek/contract/movementParts';
import type { Reviewed } from '@gravek/library/film/reviewed';
import type { Suggestion } from '@gravek/library/film/suggestions';
import type { StepBeside } from '@gravek/library/film/watched';

/** Nine of ten lie so near, as everywhere in the app: standard deviations. */
const NINE_IN_TEN = 1.645;

const small = (style: LengthStyle): LengthStyle => ({ ...style, small: true });

/** What a figure may be off by, nine times in ten. */
export const give = (sdM: number, style: LengthStyle): string =>
  `±${formatLength(NINE_IN_TEN * sdM, small(style))}`;

/** Likewise of a time. */
export const giveTime = (sdS: number): string => `±${Math.round(NINE_IN_TEN * sdS * 1000)}`;

/** Thousandths of a second, as frames are apart. */
export const milliseconds = (seconds: number): string => `${Math.round(seconds * 1000)} ms`;

/** A step beside the plan's, in words; null where nothing plainly differs. */
export const stepWords = (
  { planned, seen, lengthOffM, longer, shorter, wrongFoot }: StepBeside,
  style: LengthStyle,
): string | null => {
  if (!planned || lengthOffM === null) return null;
  if (wrongFoot)
    return `step ${planned.n}: on the ${seen.foot} foot, planned on the ${planned.foot}`;
  if (!longer && !shorter) return null;
  const by = formatLength(Math.abs(lengthOffM), small(style));
  return `step ${planned.n}: ${by} ${longer ? 'longer' : 'shorter'} than planned (${give(seen.lengthSdM, style)})`;
};

const LINES: Record<FaultFigure, (found: Suggestion, style: LengthStyle) => string> = {
  'first-step-shorter': (found, style) => beside('First step', found, style),
  'shortened-before': (found, style) => beside(`Step ${found.n}, before the end,`, found, style),
  'short-steps-longer': (found, style) => beside('Short steps of', found, style),
  slowed: ({ seen, planned }, { unit }) =>
    `Last two steps at ${formatSpeed(seen, unit)} where the run had ${formatSpeed(planned, unit)} for them`,
  'last-step-longer': (found, style) => beside(`Last step, ${found.n},`, found, style),
  'over-line': ({ seen, sd }, style) =>
    `Toe ${formatLength(seen, small(style))} beyond the line (${give(sd, style)})`,
  'foot-ahead-of-hip': ({ n, seen, planned, sd }, style) =>
    `At step ${n} the foot lands ${formatLength(seen, small(style))} ahead of the hip (${give(sd, style)}), planned ${planned < 0 ? `${formatLength(-planned, small(style))} behind it` : formatLength(planned, small(style))}`,
  drifted: (found, style) => beside('In the jump', found, style),
  'cadence-under': ({ seen, planned }) =>
    `${Math.round(seen)} steps/min, planned ${Math.round(planned)}`,
  'speed-over': ({ seen, planned }, { unit }) =>
    `${formatSpeed(seen, unit)}, planned ${formatSpeed(planned, unit)}`,
};

const beside = (what: string, { seen, planned, sd }: Suggestion, style: LengthStyle): string =>
  `${what} ${formatLength(seen, style)} (${give(sd, style)}), planned ${formatLength(planned, style)}`;

/** Why a fault is suggested. */
export const suggestionWords = (found: Suggestion, style: LengthStyle): string =>
  LINES[found.figure](found, style);

/** Where the athlete plainly differs from the plan, in a line. */
export const verdict = (reviewed: Reviewed, style: LengthStyle): string => {
  if (!reviewed.seen) return reviewed.why ?? '';
  const all = reviewed.rows.flatMap((row) => stepWords(row, style) ?? []);
  if (reviewed.rows.every((row) => row.planned === null))
    return 'These steps lie beyond the plan: say which step the first contact ends.';
  if (all.length === 0)
    return 'Every step that was seen is as planned, as far as this film can tell.';
  const shown = all.slice(0, 2).join('; ').replace(/^s/, 'S');
  return all.length > 2 ? `${shown}; and ${all.length - 2} more.` : `${shown}.`;
};
