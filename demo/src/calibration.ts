import { chooseCue } from '@gravek/core/cue/chooseCue';
import { type BetaPrior, clubPrior } from '@gravek/core/cue/clubPrior';
import { cueState } from '@gravek/core/cue/cueState';
import { type HistorySession, LIVE_RATE } from '@gravek/core/cue/faultHistory';
import { rateBand } from '@gravek/core/cue/rateBand';
import { randomLcg, randomNormal } from 'd3-random';

/**
 * How far what the app says of faults is to be trusted, from made-up seasons of which the truth is known.
 */
export type Calibration = {
  /** looks and seasons in which a cue that changed nothing read clearing or cleared, shares */
  falseLooks: number;
  falseSeasons: number;
  /** share of seasons in which a halved rate was found */
  found: number;
  /** sessions after which half of those found were found */
  medianSessions: number;
  /** share of bands that hold the truth; 0.9 is stated */
  held: number;
  /** share of athletes of whom a planted root cause was chosen */
  rootFound: number;
  /** after a relapse: seasons in which a cue that changed nothing read clearing or cleared, shares */
  falseAfterRelapse: number;
  /** after a relapse: share of seasons in which a rate that fell to a quarter was found within ten sessions */
  foundAfterRelapse: number;
  /**
   * share of bands that hold the truth of a fault that only one of two exits can show, in a row of which a
   * quarter is watched: by the reps that could show it and were watched, and by all reps
   */
  heldExposed: number;
  heldByAll: number;
};

export type Seasons = { seasons: number; seed: number; reps: number; wobble: number };

const FAULTS = 6;
const BEFORE = 6;
const SINCE = 10;
const CLUB = 12;
const REPS_FOR_ROOT = 40;
/** Sessions with which a relapse begins. */
const BASELINE = 2;
/** Days between sessions. */
const APART = 4;

const dateOf = (n: number): string =>
  new Date(Date.UTC(2031, 2, 1 + n * APART)).toISOString().slice(0, 10);

type Draw = {
  /** true rate of a fault of an athlete */
  rate: () => number;
  /** reps of a session that show a fault, the day's own rate a little off the truth */
  shown: (rate: number) => number;
  chance: () => number;
};

const drawsOf = ({ seed, reps, wobble }: Seasons): Draw => {
  const chance = randomLcg(seed);
  const normal = randomNormal.source(chance)(0, 1);
  return {
    chance,
    rate: () => 0.15 + 0.45 * chance(),
    shown: (rate) => {
      const day = Math.min(1, Math.max(0, rate + wobble * normal()));
      let many = 0;
      for (let i = 0; i < reps; i += 1) many += Number(chance() < day);
      return many;
    },
  };
};

/** What a club of athletes had shown of a fault before. */
const priorOf = (draw: Draw, reps: number): BetaPrior =>
  clubPrior({
    athletes: Array.from({ length: CLUB }, () => {
      const rate = draw.rate();
      return {
        reps: BEFORE * reps,
        faults: Array.from({ length: BEFORE }, () => draw.shown(rate)).reduce((a, b) => a + b, 0),
      };
    }),
  });

/** A season: six faults are watched, the worst is cued; its true rate is multiplied from then on. */
const season = (asked: Seasons, draw: Draw, times: number) => {
  const faults = Array.from({ length: FAULTS }, () => {
    const rate = draw.rate();
    const shown = Array.from({ length: BEFORE }, () => draw.shown(rate));
    return { rate, shown, sum: shown.reduce((a, b) => a + b, 0) };
  });
  const worst = faults.reduce((a, b) => (b.sum > a.sum ? b : a));
  const prior = priorOf(draw, asked.reps);
  const historyOf = ({ rate, shown }: (typeof faults)[number], cued: boolean): HistorySession[] => [
    ...shown.map((many, i) => ({ date: dateOf(i), reps: asked.reps, faults: many })),
    ...Array.from({ length: SINCE }, (_, i) => ({
      date: dateOf(BEFORE + i),
      reps: asked.reps,
      faults: draw.shown(cued ? rate * times : rate),
      cued,
    })),
  ];
  const told = historyOf(worst, true);
  /** first look of those since the cue began at which it read clearing, and how many did */
  const looks = Array.from(
    { length: SINCE },
    (_, i) => cueState({ sessions: told.slice(0, BEFORE + i + 1), prior }).state,
  ).map((state) => state === 'clearing' || state === 'cleared');
  return { faults, worst, looks, historyOf, told, prior };
};

/**
 * What cleared and stayed away comes back with two bad sessions, and is cued from the second on.
 *
 * @returns whether it read clearing in any of ten sessions; drawn anew until those two are told as a relapse
 */
const relapse = (asked: Seasons, draw: Draw, times: number): boolean => {
  const rate = draw.rate() + 0.1;
  const prior = priorOf(draw, asked.reps);
  const AWAY = 10;
  const AFTER = 12;
  const of = (n: number, many: number, cued: boolean): HistorySession => ({
    ...{ date: dateOf(n), reps: asked.reps, faults: many, cued },
  });
  const sessions = [
    ...Array.from({ length: BEFORE }, (_, i) => of(i, draw.shown(rate), false)),
    ...Array.from({ length: AWAY }, (_, i) => of(BEFORE + i, 0, i < 6)),
    of(BEFORE + AWAY, draw.shown(rate), false),
    of(BEFORE + AWAY + 1, draw.shown(rate), true),
    ...Array.from({ length: AFTER - BASELINE }, (_, i) =>
      of(BEFORE + AWAY + BASELINE + i, draw.shown(rate * times), true),
    ),
  ];
  const back = BEFORE + AWAY + BASELINE;
  if (cueState({ sessions: sessions.slice(0, back), prior }).relapses === 0) {
    return relapse(asked, draw, times);
  }
  return sessions.slice(back).some((_, i) => {
    const { state } = cueState({ sessions: sessions.slice(0, back + i + 1), prior });
    return state === 'clearing' || state === 'cleared';
  });
};

/** A fault that one of two exits can show, in a row of which a quarter is watched at each call. */
const inRow = (
  asked: Seasons,
  draw: Draw,
): { rate: number; seen: HistorySession[]; all: HistorySession[] } => {
  const rate = draw.rate();
  const seen: HistorySession[] = [];
  const all: HistorySession[] = [];
  for (let n = 0; n < SINCE; n += 1) {
    let exposed = 0;
    let shown = 0;
    let tapped = 0;
    const reps = 4 * asked.reps;
    for (let i = 0; i < reps; i += 1) {
      const could = draw.chance() < 0.5;
      const shows = could && draw.chance() < rate;
      const watched = i % 4 === 0;
      exposed += Number(could && watched);
      shown += Number(shows && watched);
      // Of those who are not watched only some of what is plain to see is tapped.
      tapped += Number(shows && (watched || draw.chance() < 0.3));
    }
    seen.push({ date: dateOf(n), reps: exposed, faults: shown });
    all.push({ date: dateOf(n), reps, faults: tapped });
  }
  return { rate, seen, all };
};

/** A chain of three, its first planted: whether that one is chosen from what forty reps showed. */
const rootChosen = (draw: Draw): boolean => {
  const own = { root: 0.45, middle: 0.04, last: 0.04, other: 0.3 };
  const LINK = 0.6;
  const count = { root: 0, middle: 0, last: 0, other: 0 };
  const sets: (keyof typeof count)[][] = [];
  for (let i = 0; i < REPS_FOR_ROOT; i += 1) {
    const root = draw.chance() < own.root;
    const middle = draw.chance() < own.middle || (root && draw.chance() < LINK);
    const last = draw.chance() < own.last || (middle && draw.chance() < LINK);
    count.root += Number(root);
    count.middle += Number(middle);
    count.last += Number(last);
    const other = draw.chance() < own.other;
    count.other += Number(other);
    const shown = { root, middle, last, other };
    sets.push((Object.keys(shown) as (keyof typeof count)[]).filter((code) => shown[code]));
  }
  const leads = { root: ['middle'], middle: ['last'], last: [], other: [] };
  const rateOf = (code: keyof typeof count): number =>
    rateBand({
      sessions: [{ date: dateOf(0), reps: REPS_FOR_ROOT, faults: count[code] }],
      onDate: dateOf(0),
    }).rate;
  const codes = Object.keys(count) as (keyof typeof count)[];
  const live = codes.filter((code) => rateOf(code) >= LIVE_RATE);
  const alone = (code: keyof typeof count, place: number): number => {
    const earlier = live.filter((code) => codes.indexOf(code) < place);
    const showing = sets.filter((set) => set.includes(code));
    const apart = showing.filter((set) => !earlier.some((code) => set.includes(code)));
    return earlier.length === 0 || showing.length === 0 ? 1 : apart.length / showing.length;
  };
  return (
    chooseCue({
      school: 'root-cause',
      faults: codes.map((code, phase) => ({
        code,
        phase,
        severity: 2,
        rate: rateOf(code),
        alone: alone(code, phase),
        leadsTo: leads[code],
        safety: false,
      })),
    }).code === 'root'
  );
};

/**
 * Runs made-up seasons: in one half of them the cue changes nothing, in the other it halves the rate.
 *
 * @param asked seasons of each sort, reps of a session, and the standard deviation by which a day is off
 *   the true rate
 */
export const calibrate = (asked: Seasons): Calibration => {
  const draw = drawsOf(asked);
  let looks = 0;
  let falseLooks = 0;
  let falseSeasons = 0;
  let bands = 0;
  let held = 0;
  let rootFound = 0;
  let falseAfterRelapse = 0;
  let foundAfterRelapse = 0;
  let heldExposed = 0;
  let heldByAll = 0;
  const foundAfter: number[] = [];
  for (let n = 0; n < asked.seasons; n += 1) {
    const same = season(asked, draw, 1);
    looks += same.looks.length;
    falseLooks += same.looks.filter(Boolean).length;
    falseSeasons += Number(same.looks.some(Boolean));
    for (const fault of same.faults) {
      const sessions = fault === same.worst ? same.told : same.historyOf(fault, false);
      const { low, high } = cueState({ sessions, prior: same.prior });
      bands += 1;
      held += Number(low <= fault.rate && fault.rate <= high);
    }
    const first = season(asked, draw, 0.5).looks.indexOf(true);
    if (first >= 0) foundAfter.push(first + 1);
    rootFound += Number(rootChosen(draw));
    falseAfterRelapse += Number(relapse(asked, draw, 1));
    foundAfterRelapse += Number(relapse(asked, draw, 0.25));
    const row = inRow(asked, draw);
    const holds = (sessions: HistorySession[]): number => {
      const { low, high } = rateBand({ sessions, onDate: dateOf(SINCE - 1) });
      return Number(low <= row.rate && row.rate <= high);
    };
    heldExposed += holds(row.seen);
    heldByAll += holds(row.all);
  }
  foundAfter.sort((a, b) => a - b);
  return {
    falseLooks: falseLooks / looks,
    falseSeasons: falseSeasons / asked.seasons,
    found: foundAfter.length / asked.seasons,
    medianSessions: foundAfter[Math.floor(foundAfter.length / 2)] ?? NaN,
    held: held / bands,
    rootFound: rootFound / asked.seasons,
    falseAfterRelapse: falseAfterRelapse / asked.seasons,
    foundAfterRelapse: foundAfterRelapse / asked.seasons,
    heldExposed: heldExposed / asked.seasons,
    heldByAll: heldByAll / asked.seasons,
  };
};
