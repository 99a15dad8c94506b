import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chooseCue, type LiveFault } from '../src/cue/chooseCue';
import { clubPrior } from '../src/cue/clubPrior';
import { contrasts } from '../src/cue/contrasts';
import { cueEffect, probImproved } from '../src/cue/cueEffect';
import { cueState, storyOf } from '../src/cue/cueState';
import { type HistorySession, nextSession, noHistory } from '../src/cue/faultHistory';
import { posterior } from '../src/cue/faultRate';
import { kappa } from '../src/cue/kappa';
import { rateBand } from '../src/cue/rateBand';
import { aimMargin } from '../src/runup/aimMargin';
import { landingSpread, spreadParts } from '../src/runup/landingSpread';
import { setDuration } from '../src/session/sets';
import { evenly } from './evenly';

const day = (n: number): string => new Date(Date.UTC(2031, 2, 3 + n)).toISOString().slice(0, 10);
const history = (...rows: [dayN: number, reps: number, faults: number, cued?: boolean][]) =>
  rows.map(([n, reps, faults, cued = false]): HistorySession => ({
    date: day(n),
    reps,
    faults,
    cued,
  }));

const counts = fc
  .tuple(fc.integer({ min: 0, max: 60 }), evenly(0, 1))
  .map(([reps, part]) => ({ reps, faults: Math.round(reps * part) }));

describe('the posterior of a rate', () => {
  it('orders its bounds, and more faults never lower them', () => {
    fc.assert(
      fc.property(evenly(0.5, 60), evenly(0.5, 60), (alpha, beta) => {
        const { low, rate, high } = posterior(alpha, beta);
        expect(0 <= low && low < rate && rate < high && high <= 1).toBe(true);
        expect(posterior(alpha + 1, beta).high).toBeGreaterThanOrEqual(high - 1e-12);
      }),
    );
  });

  it('has 5 % of it below the lower bound', () => {
    const [alpha, beta] = [1.5, 2.5];
    const { low } = posterior(alpha, beta);
    // F(x) by plain numerical integration.
    let below = 0;
    let all = 0;
    const n = 400_000;
    for (let i = 0; i < n; i += 1) {
      const x = (i + 0.5) / n;
      const p = x ** (alpha - 1) * (1 - x) ** (beta - 1);
      all += p;
      if (x < low) below += p;
    }
    expect(below / all).toBeCloseTo(0.05, 5);
  });
});

describe('probImproved', () => {
  it('is a half against itself and turns round when the two change places', () => {
    fc.assert(
      fc.property(counts, counts, (before, now) => {
        const { probability } = probImproved({ before, now });
        const { probability: reverse } = probImproved({ before: now, now: before });
        expect(probability + reverse).toBeCloseTo(1, 5);
        expect(probImproved({ before, now: before }).probability).toBeCloseTo(0.5, 5);
      }),
    );
  });
});

describe('rateBand', () => {
  it('orders its bounds; days that differ widen them, and time does not move the rate', () => {
    fc.assert(
      fc.property(fc.array(counts, { minLength: 1, maxLength: 8 }), (list) => {
        const sessions = list.map((count, i) => ({ date: day(i * 3), ...count }));
        const { low, rate, high, spreadFactor } = rateBand({ sessions, onDate: day(24) });
        expect(0 <= low && low < rate && rate < high && high <= 1).toBe(true);
        expect(spreadFactor).toBeGreaterThanOrEqual(1);
        // Later sessions and empty ones count for nothing.
        const more = [...sessions, { date: day(30), reps: 40, faults: 40 }];
        more.unshift({ date: day(0), reps: 0, faults: 0 });
        expect(rateBand({ sessions: more, onDate: day(24) })).toMatchObject({ low, rate, high });
      }),
    );
    const even = history([0, 10, 5], [3, 10, 5], [6, 10, 5], [9, 10, 5]);
    const wild = history([0, 10, 0], [3, 10, 10], [6, 10, 0], [9, 10, 10]);
    const width = (sessions: HistorySession[]): number => {
      const { low, high } = rateBand({ sessions, onDate: day(9) });
      return high - low;
    };
    expect(width(wild)).toBeGreaterThan(1.5 * width(even));
  });
});

describe('cueEffect', () => {
  it('is a half against itself, and a prior pulls it towards that', () => {
    fc.assert(
      fc.property(counts, counts, (before, since) => {
        const weak = { alpha: 0.5, beta: 0.5 };
        const effect = (prior: { alpha: number; beta: number }): number =>
          cueEffect({ before, since, prior }).probability;
        expect(cueEffect({ before, since: before, prior: weak }).probability).toBeCloseTo(0.5, 5);
        // A club that is sure lets nobody's few reps say much.
        expect(Math.abs(effect({ alpha: 1e5, beta: 1e5 }) - 0.5)).toBeLessThan(0.2);
      }),
    );
    expect(() =>
      cueEffect({
        before: { reps: 1, faults: 0 },
        since: { reps: 1, faults: 0 },
        prior: { alpha: 0, beta: 1 },
      }),
    ).toThrow('prior.alpha');
  });
});

describe('clubPrior', () => {
  it('is the stronger the more alike the athletes are', () => {
    const of = (faults: number[]) =>
      clubPrior({ athletes: faults.map((n) => ({ reps: 40, faults: n })) });
    const alike = of([12, 12, 11, 13, 12, 12]);
    const unlike = of([0, 30, 2, 25, 1, 14]);
    expect(alike.alpha + alike.beta).toBeGreaterThan(unlike.alpha + unlike.beta);
    expect(alike.alpha / (alike.alpha + alike.beta)).toBeCloseTo(0.3, 1);
  });
});

describe('cueState', () => {
  const stateOf = (...rows: Parameters<typeof history>): string =>
    cueState({ sessions: history(...rows) }).state;

  it('calls nothing before ten reps', () => {
    expect(stateOf([0, 4, 4], [3, 5, 5])).toBe('new');
    expect(cueState({ sessions: [] })).toMatchObject({ state: 'new', effect: null, rate: 0.5 });
  });

  it('is clearing only when the effect is sure twice running, and stuck after four sessions of it', () => {
    const before: Parameters<typeof history> = [
      [0, 20, 12],
      [3, 20, 11],
      [6, 20, 12],
    ];
    expect(stateOf(...before, [9, 20, 12, true], [12, 20, 2, true])).toBe('steady');
    expect(stateOf(...before, [9, 20, 2, true], [12, 20, 2, true], [15, 20, 1, true])).toBe(
      'clearing',
    );
    const stuck: Parameters<typeof history> = [9, 12, 15, 18].map((n) => [n, 20, 12, true]);
    expect(stateOf(...before, ...stuck)).toBe('stuck');
    expect(stateOf(...before, ...stuck.slice(0, 3))).toBe('steady');
    const uncued = stuck.map(([n, reps, faults]): [number, number, number] => [n, reps, faults]);
    expect(stateOf(...before, ...uncued)).toBe('steady');
  });

  it('lets an old habit weigh on a new one no more: the rate is that since the change', () => {
    const story = cueState({
      sessions: history(
        ...[0, 3, 6, 9].map((n): [number, number, number] => [n, 20, 14]),
        ...[12, 15, 18, 21].map((n): [number, number, number, boolean] => [n, 20, 4, true]),
      ),
    });
    expect(story.rateSince).toBe(day(12));
    expect(story.rate).toBeCloseTo(0.2, 1);
    expect(story.span).toMatchObject({
      before: { reps: 80, faults: 56 },
      since: { reps: 80, faults: 16 },
    });
  });

  it('is cleared only when it stays away for seven days, and back when it returns', () => {
    const away: Parameters<typeof history> = [
      [0, 30, 0],
      [3, 30, 1],
    ];
    expect(stateOf(...away)).toBe('steady');
    const cleared: Parameters<typeof history> = [...away, [10, 30, 0]];
    expect(stateOf(...cleared)).toBe('cleared');
    expect(stateOf(...cleared, [13, 20, 14], [16, 20, 15])).toBe('back');
  });

  it('works out only the chances that are in doubt, and never decides otherwise for that', () => {
    // Two sessions before and two since; what is sure is what the exact chance says.
    for (const reps of [3, 5, 8, 14]) {
      for (let before = 0; before <= reps; before += 1) {
        for (let since = 0; since <= reps; since += 1) {
          const sessions = history(
            [0, 40, 0],
            ...[3, 6].map((n): [number, number, number] => [n, reps, before]),
            ...[9, 12, 15].map((n): [number, number, number, boolean] => [n, reps, since, true]),
          );
          const exact = (last: number): number =>
            cueEffect({
              before: { reps: 40 + 2 * reps, faults: 2 * before },
              since: { reps: last * reps, faults: last * since },
              prior: { alpha: 0.5, beta: 0.5 },
            }).probability;
          const sure = exact(2) >= 0.975 && exact(3) >= 0.975;
          const { rateSince, relapses } = cueState({ sessions });
          // What had cleared and comes back is judged from there, by its own rule.
          if (relapses > 0) continue;
          expect(rateSince === day(9), `${before}, ${since} of ${reps}`).toBe(sure);
        }
      }
    }
  });

  it('has the rate and band of rateBand since the change, and clears by them alone', () => {
    const judged = { cleared: 0, others: 0 };
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.integer({ min: 1, max: 9 }),
            // Mostly none, or hardly anything would ever be cleared.
            fc.oneof({ weight: 5, arbitrary: fc.constant(0) }, fc.integer({ min: 0, max: 5 })),
            fc.boolean(),
          ),
          {
            minLength: 1,
            maxLength: 14,
          },
        ),
        (list) => {
          let on = 0;
          const sessions = list.map(([apart, faults, cued]) => ({
            date: day((on += apart)),
            reps: 16,
            faults,
            cued,
          }));
          const { rate, low, high, rateSince, state } = cueState({ sessions });
          const since = sessions.filter(({ date }) => date >= rateSince!);
          const band = rateBand({ sessions: since, onDate: sessions.at(-1)!.date });
          expect([rate, low, high].map((value) => value.toFixed(9))).toEqual(
            [band.rate, band.low, band.high].map((value) => value.toFixed(9)),
          );
          // A rate that began anew is judged from there: what was before is none of it.
          if (rateSince !== sessions[0]!.date || state === 'back') {
            expect(sessions.map(({ date }) => date)).toContain(rateSince);
            return;
          }
          // By hand: how long the upper bound has been low.
          let lowSince: number | null = null;
          let days = 0;
          sessions.forEach(({ date }, i) => {
            const at = rateBand({ sessions: sessions.slice(0, i + 1), onDate: date });
            const now = Date.parse(date) / 864e5;
            if (at.high < 0.15) lowSince ??= now;
            else lowSince = null;
            days = lowSince === null ? -1 : now - lowSince;
          });
          expect(state === 'cleared').toBe(days >= 7);
          judged[state === 'cleared' ? 'cleared' : 'others'] += 1;
        },
      ),
      { numRuns: 300 },
    );
    // Both were there to be told apart.
    expect(judged.cleared, JSON.stringify(judged)).toBeGreaterThan(5);
    expect(judged.others, JSON.stringify(judged)).toBeGreaterThan(5);
  });

  it('goes on from session to session as it comes to all of them, and never changes what was', () => {
    const list = fc.array(
      fc.tuple(
        fc.integer({ min: 0, max: 9 }),
        fc.oneof({ weight: 4, arbitrary: fc.constant(0) }, fc.integer({ min: 0, max: 14 })),
        fc.boolean(),
      ),
      { maxLength: 24 },
    );
    let relapsed = 0;
    fc.assert(
      fc.property(list, (drawn) => {
        let on = 0;
        const sessions = drawn.map(([apart, faults, cued]) => ({
          ...{ date: day((on += apart)), reps: 14, faults, cued },
        }));
        let history = noHistory();
        sessions.forEach((session, i) => {
          const before = JSON.stringify(history);
          const next = nextSession(history, session);
          expect(JSON.stringify(history)).toBe(before);
          history = next;
          const story = storyOf(history);
          expect(story).toEqual(cueState({ sessions: sessions.slice(0, i + 1) }));
          // Epochs follow one another, and only what was cleared can come back.
          expect(story.epochs).toHaveLength(story.relapses + 1);
          story.epochs.slice(1).forEach(({ from }, e) => {
            const { from: began, clearedOn } = story.epochs[e]!;
            expect(clearedOn).not.toBeNull();
            expect(clearedOn! >= began && clearedOn! <= from).toBe(true);
          });
          for (const figure of [story.rate, story.low, story.high, story.effect ?? 0]) {
            expect(figure).toBeGreaterThanOrEqual(0);
            expect(figure).toBeLessThanOrEqual(1);
          }
          // Nobody is stuck with a cue, or back, for longer than the rule says.
          if (story.state === 'back') expect(story.relapses).toBeGreaterThan(0);
        });
        relapsed += Number(storyOf(history).relapses > 0);
      }),
      { numRuns: 200 },
    );
    expect(relapsed).toBeGreaterThan(5);
  });

  it('has a rate also when all it knows is of long ago', () => {
    const sessions = history([0, 12, 6], [4, 12, 5]);
    for (const halfLives of [500, 538, 600, 1100, 5000]) {
      const onDate = new Date(Date.parse('2031-03-01') + halfLives * 864e5).toISOString();
      const band = rateBand({ sessions, onDate: onDate.slice(0, 10), halfLifeDays: 1 });
      expect(band.rate).toBeGreaterThan(0.3);
      expect(band.rate).toBeLessThanOrEqual(0.5);
      expect(band.low).toBeGreaterThanOrEqual(0);
      expect(band.high).toBeLessThanOrEqual(1);
    }
  });

  it('passes over sessions without reps and refuses dates out of order', () => {
    expect(cueState({ sessions: history([0, 10, 5], [2, 0, 0]) })).toEqual(
      cueState({ sessions: history([0, 10, 5]) }),
    );
    expect(() => cueState({ sessions: history([4, 10, 5], [2, 10, 5]) })).toThrow(
      'sessions[1].date',
    );
  });
});

describe('contrasts', () => {
  it('points out a plain difference among many looks at nothing, and needs no look at all', () => {
    const look = (id: string, a: number, b: number) => ({
      id,
      a: { reps: 40, faults: a },
      b: { reps: 40, faults: b },
    });
    const { looks } = contrasts({
      looks: [look('plain', 30, 5), ...Array.from({ length: 19 }, (_, i) => look(`${i}`, 12, 14))],
    });
    expect(looks.filter((look) => look.flagged).map((look) => look.id)).toEqual(['plain']);
    expect(contrasts({ looks: [] })).toEqual({ looks: [] });
  });
});

describe('kappa', () => {
  it('is one where two always agree and the fault comes and goes, and below nought where they never do', () => {
    expect(kappa({ both: 7, onlyA: 0, onlyB: 0, neither: 9 }).kappa).toBe(1);
    expect(kappa({ both: 0, onlyA: 8, onlyB: 8, neither: 0 }).kappa).toBe(-1);
    expect(kappa({ both: 0, onlyA: 0, onlyB: 0, neither: 0 }).kappa).toBeNull();
    expect(() => kappa({ both: -1, onlyA: 0, onlyB: 0, neither: 0 })).toThrow('both');
  });
});

describe('spread of steps and runs', () => {
  it('finds what was put in', () => {
    let state = 7;
    const normal = (sd: number): number => {
      let sum = 0;
      for (let i = 0; i < 12; i += 1) {
        state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
        sum += state / 2 ** 32;
      }
      return sd * (sum - 6);
    };
    const runs = Array.from({ length: 400 }, () => {
      const whole = normal(0.01);
      return Array.from({ length: 12 }, (_, k) => (1 + k / 12) * (1 + whole + normal(0.02)));
    });
    const { stepFraction, runFraction } = spreadParts({ runs });
    expect(stepFraction).toBeCloseTo(0.02, 2);
    expect(runFraction).toBeCloseTo(0.01, 2);
  });

  it('goes from the model to what was logged as runs come in', () => {
    const model = { lengthsM: [1, 1.5, 2], stepFraction: 0.02, runFraction: 0.01, startSdM: 0.02 };
    const shown = (n: number) => landingSpread({ ...model, logged: { n, sdM: 0.2 } }).shownSdM;
    expect(landingSpread(model).shownSdM).toBe(landingSpread(model).blindSdM);
    expect(shown(1)).toBeCloseTo(landingSpread(model).blindSdM, 12);
    expect(shown(20)).toBeGreaterThan(shown(3));
    expect(shown(5000)).toBeCloseTo(0.2, 3);
  });
});

describe('chooseCue', () => {
  const faults = fc.uniqueArray(
    fc.record({
      code: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
      phase: fc.integer({ min: 0, max: 4 }),
      severity: fc.integer({ min: 1, max: 3 }),
      rate: evenly(0, 1),
      leadsTo: fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 3 }),
      safety: fc.boolean(),
    }),
    { selector: (fault) => fault.code },
  );

  it('names a live fault, or none when none is live; safety first; ends on circles too', () => {
    fc.assert(
      fc.property(
        faults,
        fc.constantFrom('root-cause', 'first-phase', 'most-frequent'),
        (list: LiveFault[], school) => {
          const { code, why } = chooseCue({ school: school as 'root-cause', faults: list });
          const live = list.filter((fault) => fault.rate >= 0.15);
          if (live.length === 0) {
            expect([code, why]).toEqual([null, 'none']);
            return;
          }
          const chosen = live.find((fault) => fault.code === code);
          expect(chosen).toBeDefined();
          if (live.some((fault) => fault.safety)) expect(chosen!.safety).toBe(true);
        },
      ),
    );
  });

  it('refuses a rate that is none', () => {
    const fault = { code: 'a', phase: 0, severity: 1, rate: 3, leadsTo: [], safety: false };
    expect(() => chooseCue({ faults: [fault] })).toThrow('faults[0].rate');
  });
});

describe('sets and margins', () => {
  it('never waits less than the queue or the rest', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 0, max: 200 }),
        (group, rest) => {
          const plan = setDuration({
            sets: 2,
            reps: 4,
            repS: 5,
            restS: rest,
            setRestS: 60,
            groupSize: group,
            changeoverS: 3,
          });
          expect(plan.cycleS).toBeGreaterThanOrEqual(group * 8);
          expect(plan.cycleS).toBeGreaterThanOrEqual(5 + rest);
          expect(plan.idleFraction).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });

  it('aims where no other margin pays more', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 8, noNaN: true }),
        fc.double({ min: 0.02, max: 0.4, noNaN: true }),
        (jumpM, sdM) => {
          const { marginM, expectedM } = aimMargin({ jumpM, sdM });
          const counted = (margin: number): number => {
            let sum = 0;
            const n = 4000;
            for (let i = 0; i < n; i += 1) {
              const z = -8 + ((i + 0.5) * 16) / n;
              const lands = z * sdM - margin;
              if (lands <= 0) sum += (jumpM + lands) * Math.exp((-z * z) / 2) * (16 / n);
            }
            return sum / Math.sqrt(2 * Math.PI);
          };
          expect(counted(marginM)).toBeCloseTo(expectedM, 1);
          for (const away of [-0.3, 0.3]) {
            expect(counted(marginM + away * sdM)).toBeLessThanOrEqual(expectedM + 0.003 * jumpM);
          }
        },
      ),
      { numRuns: 30 },
    );
  });
});
