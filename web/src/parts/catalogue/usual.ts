import { bodyOf, type Body } from '@gravek/core/layout/body';
import type { Athlete } from '@gravek/contract/athlete';

/** A right-hander of usual height, for looking at a movement before choosing an athlete. */
const USUAL_BODY = bodyOf({
  hand: 'right',
  takeoffFoot: 'left',
  trials: [],
  heightM: null,
  legM: null,
  shoeM: null,
});

export const bodyFor = (athlete: Athlete | undefined): Body & { estimated: string[] } =>
  athlete ? bodyOf(athlete) : USUAL_BODY;

/** From this age on the estimates are those of the full-grown. */
const GROWN_YEARS = 16;

const NAMES: Record<string, string> = {
  steps: 'step lengths',
  height: 'height',
  leg: 'leg length',
  shoe: 'shoe',
};

/** Which measures the lengths are drawn from though nobody took them, as a sentence; null when all were. */
export const estimatedNote = (
  athlete: Athlete | undefined,
  estimated: readonly string[],
): string | null => {
  if (!athlete) {
    return 'Drawn for a usual body of 1.70 m; choose an athlete for their own lengths.';
  }
  if (estimated.length === 0) return null;
  const names = estimated.map((figure) => NAMES[figure]).join(', ');
  const years = athlete.ageYears;
  const young = years !== null && years < GROWN_YEARS;
  const height = estimated.includes('height')
    ? young
      ? `the usual height at ${years} years`
      : 'a usual height'
    : 'body height';
  const from = young && estimated.includes('steps') ? `${height} and age` : height;
  return `${athlete.name} was never measured for ${names}; ${estimated.length === 1 ? 'it is' : 'they are'} taken from ${from}: a rough guess.`;
};
