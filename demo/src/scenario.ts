import type { Reading } from '@gravek/core';
import type { Choices, DrillSet, Source } from '@gravek/contract';
import athletesJson from '../data/athletes.json';
import approachesJson from '../data/approaches.json';

/** How a fault of an athlete goes over the season, from its first rate. */
export type Course =
  /** answers to its cue until it is gone */
  | 'clears'
  /** answers to its cue slowly */
  | 'fades'
  /** does not answer to its cue */
  | 'stuck'
  /** does not answer for long, then goes at once */
  | 'clicks'
  /** goes, and comes back late in the season */
  | 'returns'
  /** neither better nor worse */
  | 'steady';

export type ScenarioAthlete = {
  name: string;
  squad: string;
  positions: string[];
  age: number;
  heightM: number | null;
  shoeM: number | null;
  hand: 'left' | 'right';
  takeoffFoot: 'left' | 'right';
  plans: string[];
  /** of the usual step for the height */
  pace: number;
  /** fault → how it goes; faults of other movements than the run-up as movement/fault */
  story: Record<string, [Course, number]>;
  /** hurdlers start from blocks: short first steps */
  build?: 'hurdles';
  trial?: false;
  restriction?: 'reduced' | 'no-jumping' | 'no-contact';
  /** tests beside the measured runs */
  readings?: { daysAgo: number; source: Source; reading: Reading }[];
  /** days ago; only sessions since then */
  joined?: number;
};

/** Which training of a squad's fortnight: that of the first weekday, or the second by turns. */
export type Training = 'first' | 'second' | 'third';

export type ScenarioApproach = {
  key: string;
  name: string;
  squad: string;
  /** the run-up when left out */
  movement?: string;
  /** the trainings of a fortnight in which it is run; all when left out */
  days?: readonly Training[];
  sides?: DrillSet['sides'];
  choices: Choices;
  sets: number;
  reps: number;
  restS: number;
  setRestS: number;
};

export const SCENARIO_ATHLETES = athletesJson as unknown as ScenarioAthlete[];
export const SCENARIO_APPROACHES = approachesJson as unknown as ScenarioApproach[];

export const CLUB = {
  name: 'Skerrow Bay Sports Club',
  unit: 'metric',
  cueSchool: 'root-cause',
  timeZone: 'UTC',
} as const;

/** On which days a squad trains: days before today, and what the session is called. */
export const TRAINING: Record<string, { every: readonly number[]; title: string; place: string }> =
  {
    Athletics: { every: [0, 4], title: 'Run-ups', place: 'Skerrow track' },
    Handball: { every: [1, 5], title: 'Run-ins', place: 'Harbour hall' },
    'Handball youth': { every: [3], title: 'First steps', place: 'Harbour hall' },
    Cricket: { every: [2], title: 'Bowling run-ups', place: 'Lower nets' },
  };

export const WEEKS = 10;
