/**
 * A number as people type it: a decimal comma or point, a sign of either length; no unit.
 *
 * @returns NaN where it is none
 * @example figure('−0,14') // -0.14
 */
export const figure = (text: string): number => {
  const tidy = text.trim().replace(',', '.').replace('−', '-');
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(tidy) ? Number(tidy) : NaN;
};

/**
 * A time as it is written down: seconds with or without their unit, or minutes and seconds with a colon.
 *
 * @returns seconds; NaN where it is no time
 * @example secondsOf('1:02,5') // 62.5
 */
export const secondsOf = (text: string): number => {
  const tidy = text.replace(/\s*s(ec)?\.?$/i, '').trim();
  const [, minutes, seconds] = /^(\d+):(\d+(?:[.,]\d+)?)$/.exec(tidy) ?? [];
  return minutes ? 60 * Number(minutes) + figure(seconds!) : figure(tidy);
};
