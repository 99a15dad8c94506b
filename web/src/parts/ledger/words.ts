import type { LinkEvidence } from '@gravek/core/cue/causeLinks';
import type { WayLook, WayMeasure } from '@gravek/core/cue/compareWays';
import type { RepCounts } from '@gravek/core/cue/cueEffect';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type {
  Agreement,
  Contrast,
  ContrastAxis,
  LedgerRow,
  WayCheck,
} from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { faultOf } from '@gravek/library/movement/byCode';
import { sidePhrase } from '@gravek/library/movement/sides';
import { sideWords } from '@gravek/library/session/setWords';
import { dayName } from '../../controls/dates';

export const percent = (part: number): string => `${Math.round(part * 100)} %`;

const share = ({ reps, faults }: RepCounts): string =>
  reps === 0 ? 'no reps' : `${percent(faults / reps)} of ${Math.round(reps)}`;

/** How sure something is, in words that do not claim more than the figure. */
export const chance = (p: number): string =>
  p > 0.99 ? 'over 99 %' : p < 0.01 ? 'under 1 %' : percent(p);

const UNDER: Record<Exclude<ContrastAxis, 'side'>, [a: string, b: string]> = {
  leadFoot: ['off the left foot', 'off the right foot'],
  speed: ['slower than 90 %', 'from 90 % of full speed'],
  rung: ['on the first rung', 'on later rungs'],
  tired: ['early in a set', 'late in a set'],
};

/** Where a fault shows more, with both shares. */
export const contrastSentence = (
  movement: Movement,
  athlete: Pick<Athlete, 'hand' | 'takeoffFoot'>,
  { axis, fault, a, b }: Contrast,
): string => {
  const [inA, inB] =
    axis === 'side'
      ? [sidePhrase(movement, athlete, 'own'), sidePhrase(movement, athlete, 'other')]
      : UNDER[axis];
  const name = faultOf(movement, fault)?.name ?? fault;
  const more = a.faults / a.reps > b.faults / b.reps;
  const [first, second] = more ? [a, b] : [b, a];
  return `${name} shows more ${more ? inA : inB}: ${share(first)} reps, against ${share(second)} ${more ? inB : inA}.`;
};

const MEASURES: Record<WayMeasure, string> = {
  clean: 'Clean',
  held: 'Seconds held',
  reaction: 'From the call to the first step',
};

/** What two ways are held against each other by. */
export const wayMeasure = (movement: Movement, { measure, side }: WayLook): string =>
  side === null ? MEASURES[measure] : `${MEASURES[measure]}, ${sideWords(movement, [], side)}`;

/** What a way came to, with the reps behind it. */
export const wayFigure = (
  { measure }: Pick<WayLook, 'measure'>,
  { value, reps }: WayLook['a'],
): string => `${measure === 'clean' ? percent(value) : `${value.toFixed(2)} s`} of ${reps}`;

/** What the reps say of two ways, as a sentence. */
export const wayVerdict = (
  { chance: isKnown, better, athletes }: WayCheck['pairs'][number]['looks'][number],
  [a, b]: readonly [string, string],
): string => {
  const who = counted(athletes, 'athlete');
  if (better !== null) return `${better === 'a' ? a : b} does better, by ${who} who did both.`;
  return isKnown === null ? `Too few to say (${who}).` : `No sure difference (${who}).`;
};

/** What decided how a fault stands, as a sentence. */
export const whyState = ({
  state,
  effect,
  span,
  low,
  high,
  cuedRun,
  seen,
  reps,
  epochs,
}: LedgerRow): string => {
  const spanned =
    span && effect !== null
      ? `${share(span.since)} reps ${cuedRun > 0 ? 'since the cue began' : 'in the last four sessions'}, ${share(span.before)} before; it is lower with a chance of ${chance(effect)}`
      : `shown in ${seen} of ${reps} reps so far, with nothing before to hold it against`;
  const why: Record<typeof state, string> = {
    new: 'Under ten reps: too few to judge.',
    back: `It had cleared, and shows again: ${spanned}.`,
    cleared: `The upper end of its band, ${percent(high)}, has been under 15 % for a week or more.`,
    clearing: `${spanned}, after each of the last two sessions (97.5 % is asked).`,
    stuck: `${cuedRun} sessions with this cue: ${spanned} (75 % is asked by now).`,
    steady: `${spanned}; no sure change. It lies between ${percent(low)} and ${percent(high)}.`,
  };
  const sentence = why[state];
  const little =
    epochs.length > 1 && (state === 'back' || state === 'steady')
      ? ' There is little to compare with since it came back.'
      : '';
  return sentence[0]!.toUpperCase() + sentence.slice(1) + little;
};

/** When a fault cleared and when it came back; null where it never did either. */
export const epochsSentence = ({ epochs }: Pick<LedgerRow, 'epochs'>): string | null => {
  const turns = epochs.flatMap(({ from, clearedOn }, i) => [
    ...(i > 0 ? [`back ${dayName(from)}`] : []),
    ...(clearedOn === null ? [] : [`cleared ${dayName(clearedOn)}`]),
  ]);
  if (turns.length === 0) return null;
  const sentence = turns.join(', ');
  return `${sentence[0]!.toUpperCase()}${sentence.slice(1)}.`;
};

const LITTLE = 0.4;
const WELL = 0.7;

/** On what two watchers agree least, in a sentence. */
export const agreementWords = (movement: Movement, list: readonly Agreement[]): string => {
  const least = list
    .filter(({ kappa }) => kappa !== null && kappa < LITTLE)
    .map(({ fault }) => (faultOf(movement, fault)?.name ?? fault).toLowerCase());
  const watched = `Two have watched the same ${Math.max(...list.map(({ reps }) => reps))} reps`;
  return least.length === 0
    ? `${watched} and agree on what they saw.`
    : `${watched} and agree little on ${least.slice(0, 3).join(', ')}${least.length > 3 ? ` and ${least.length - 3} more` : ''}.`;
};

/** How far two watchers agree on a fault. */
export const agreementSentence = (
  movement: Movement,
  { fault, reps, agreement, kappa }: Agreement,
): string => {
  const name = faultOf(movement, fault)?.name ?? fault;
  const beyond =
    kappa === null
      ? ''
      : `, ${kappa < LITTLE ? 'little' : kappa < WELL ? 'fairly' : 'well'} beyond chance (kappa ${kappa.toFixed(2)})`;
  return `${name}: they agree in ${percent(agreement)} of ${reps} reps${beyond}.`;
};

const linkNames = (movement: Movement, { from, to }: LinkEvidence): [string, string] => [
  faultOf(movement, from)?.name ?? from,
  (faultOf(movement, to)?.name ?? to).toLowerCase(),
];

/** How often the later fault shows with the earlier one and without it. */
export const linkRates = (movement: Movement, link: LinkEvidence): string => {
  const [from, to] = linkNames(movement, link);
  return `${from}, then ${to}: in ${percent(link.rates?.with ?? 0)} of reps with the first, ${percent(link.rates?.without ?? 0)} of those without.`;
};

/** What reps say against a chain of causes. */
export const causeSentence = (movement: Movement, link: LinkEvidence): string => {
  const [from, to] = linkNames(movement, link);
  const figures = `${percent(link.rates?.with ?? 0)} of reps with it, ${percent(link.rates?.without ?? 0)} without`;
  return link.verdict === 'missing'
    ? `${from} seems to bring about ${to}, and the chain does not say so (${figures}).`
    : `${from} hardly brings about ${to} here (${figures}).`;
};
