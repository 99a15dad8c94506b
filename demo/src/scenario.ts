import type { Reading } from '@gravek/core/measuring/measures';
import type { Choices } from '@gravek/contract/approach';
import type { ClubSettings } from '@gravek/contract/club';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { GroundInput } from '@gravek/contract/ground';
import type { Source } from '@gravek/contract/source';
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
  sides?: DrillSet['vary']['sides'];
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
  limits: [
    { kind: 'contacts', upToAge: 12, week: 600 },
    { kind: 'jumps', upToAge: 12, week: 40 },
    { kind: 'jumps', upToAge: 17, week: 80 },
    { kind: 'sprintM', upToAge: 17, week: 900 },
  ],
} satisfies ClubSettings;

/** On which days a squad trains: days before today, and what the session is called. */
export const TRAINING: Record<string, { every: readonly number[]; title: string; ground: string }> =
  {
    Athletics: { every: [0, 4], title: 'Run-ups', ground: 'Skerrow track' },
    Handball: { every: [1, 5], title: 'Run-ins', ground: 'Harbour hall' },
    'Handball youth': { every: [3], title: 'First steps', ground: 'Harbour hall' },
    Cricket: { every: [2], title: 'Bowling run-ups', ground: 'Lower nets' },
  };

/** Where the squads train; the slots are by the days on which they do, from and to. */
export const GROUNDS: readonly (Omit<GroundInput, 'id' | 'slots'> & {
  slots: Record<string, readonly [from: string, to: string]>;
})[] = [
  {
    name: 'Harbour hall',
    note: 'Keys at the boat house. The far goal stands on the stage side.',
    surface: 'hall floor',
    lanes: 3,
    laneM: 34,
    goalM: 3,
    uprightGapM: null,
    apron: null,
    gapM: null,
    baseM: null,
    rim: null,
    net: null,
    marks: [
      { name: 'keeper’s line', of: 'goal', fromM: 4 },
      { name: 'area line', of: 'goal', fromM: 6 },
      { name: 'free-throw line', of: 'goal', fromM: 9 },
    ],
    slots: { Handball: ['18:00', '19:45'], 'Handball youth': ['16:30', '17:30'] },
  },
  {
    name: 'Lower nets',
    note: 'The third net floods after rain.',
    surface: 'artificial turf',
    lanes: 2,
    laneM: 26,
    goalM: null,
    uprightGapM: null,
    apron: null,
    gapM: null,
    baseM: null,
    rim: null,
    net: null,
    marks: [{ name: 'drain cover', of: 'line', fromM: 18.6 }],
    slots: { Cricket: ['17:15', '19:00'] },
  },
  {
    name: 'Skerrow track',
    note: '',
    surface: 'track',
    lanes: 2,
    laneM: 40,
    goalM: null,
    uprightGapM: 4,
    apron: { besideM: 14, outM: 18 },
    gapM: null,
    baseM: null,
    rim: null,
    net: null,
    marks: [
      { name: 'near drain', of: 'board', fromM: 10 },
      { name: 'paint mark', of: 'board', fromM: 30 },
    ],
    slots: { Athletics: ['17:00', '19:15'] },
  },
];

type SetChange = Partial<Omit<DrillSet, 'id' | 'work' | 'athleteIds' | 'vary'>> & {
  vary?: Partial<DrillSet['vary']>;
};

/**
 * The handball training that comes next, set by set: a drill as it is taught, a plan, or a warm-up; keepers or all
 * others.
 */
export const NEXT_TRAINING: readonly {
  drill?: readonly [movement: string, drill: string];
  plan?: string;
  warmUp?: string;
  keepers?: boolean;
  set?: SetChange;
}[] = [
  {
    warmUp: 'Band: squats, steps sideways, diagonals',
    set: { stand: 'row', sets: 1, reps: 3, target: 'touches', amount: 20, restS: 10, setRestS: 0 },
  },
  { drill: ['gaps', 'one-two-three'], set: { lanes: 2 } },
  {
    plan: 'chain',
    set: {
      vary: {
        moves: ['jab-straight', 'jab-cross', 'hesitation'],
        endings: ['near-side', 'two-foot-stop'],
        sides: ['own', 'other'],
      },
      order: 'mixed',
      target: 'makes',
      amount: 2,
      reps: 3,
      sets: 1,
      stand: 'roles',
      helpers: ['feeder', 'collector'],
      restS: 15,
      setRestS: 60,
    },
  },
  { drill: ['goal-arc', 'freeze-lanes'], keepers: true, set: { beside: true } },
  { drill: ['close-and-shorten', 'quarter-half-full'] },
  {
    plan: 'ground',
    set: { target: 'seconds', amount: 3, sets: 1, reps: 3, restS: 30, setRestS: 60 },
  },
  { drill: ['wall-switches', 'one-freeze'] },
];

/** What counts in the sets of a plan, beside their faults; makes are tried at one spot a session. */
export const COUNTED: Readonly<
  Record<string, { target: 'makes' | 'touches'; amount: number; spots?: string[] }>
> = {
  'y-finish': { target: 'makes', amount: 2, spots: ['left side', 'middle', 'right side'] },
  slides: { target: 'touches', amount: 6 },
};

/** The ways of teaching that the coach tries side by side in the sets of a plan. */
export const BOTH_WAYS: Readonly<Record<string, string[]>> = {
  ground: ['turn:slide', 'turn:open'],
};
/** The way by which the squad truly sets off sooner, and by how many seconds: for the application to find. */
export const SOONER = { way: 'turn:open', byS: 0.09 };

/** Days until that training. */
export const NEXT_IN_DAYS = 2;

export const WEEKS = 10;
