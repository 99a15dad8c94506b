import { bodyOf } from '@gravek/core/layout/body';
import { runThroughs } from '@gravek/core/measuring/measures';
import { currentModel } from '@gravek/core/runup/currentModel';
import { athleteSpread, BY_EYE } from '@gravek/core/runup/holding';
import { simulateRunUps } from '@gravek/core/runup/simulateRunUps';
import { modelLengthM } from '@gravek/core/runup/stepModel';
import { groupBy } from '@gravek/core/session/repLog';
import { isSequence } from '@gravek/contract/choices';
import type { Rep } from '@gravek/contract/session';
import { checkCauses } from '@gravek/library/cue/causes';
import type { SessionFaults } from '@gravek/library/cue/sessionFaults';
import { cueInForce, standingsOf, toldOf } from '@gravek/library/cue/standings';
import { isChain } from '@gravek/library/movement/chains';
import { movementOf } from '@gravek/library/movement/movements';
import { solve } from '@gravek/library/planning/solvePlan';
import { describe, expect, it } from 'vitest';
import { makeSeason } from '../src/season';

/** The season must hold together, and hold the truth that the application is to find in it. */

const movement = movementOf('straight-run-up');
const season = makeSeason(new Date('2031-05-14T12:00:00Z'), 'a password for tests');
/** What the coach logged who watches all of it. */
const reps = season.reps.filter((rep) => rep.device === season.reps[0]!.device);
const dateOf = new Map(season.sessions.map((session) => [session.id, session.date]));

const logged = [...new Set(reps.map((rep) => rep.movement))].map((code) => movementOf(code));

it('shows nine to twelve movements at work, a chain and the young among them', () => {
  expect(logged.length).toBeGreaterThanOrEqual(9);
  expect(logged.length).toBeLessThanOrEqual(12);
  expect(logged.some((movement) => isChain(movement.code))).toBe(true);
  const year = new Date('2031-05-14').getFullYear();
  const young = season.athletes.filter(({ birthYear }) => year - birthYear! <= 13);
  expect(young.some(({ hand }) => hand === 'left')).toBe(true);
  for (const { id } of young) {
    expect(reps.filter((rep) => rep.athleteId === id).length).toBeGreaterThan(60);
  }
});

describe('the season', () => {
  it('points nowhere that is not there', () => {
    const athletes = new Set(season.athletes.map((athlete) => athlete.id));
    const approaches = new Set(season.approaches.map((approach) => approach.id));
    const sets = new Map(
      season.sessions.flatMap((session) =>
        session.drillSets.map((set) => [set.id, { set, session: session.id }] as const),
      ),
    );
    for (const { set } of sets.values())
      if (set.work.kind === 'plan') expect(approaches.has(set.work.approachId)).toBe(true);
    for (const rep of reps) {
      const at = sets.get(rep.drillSetId)!;
      expect(at.session).toBe(rep.sessionId);
      expect(at.set.athleteIds).toContain(rep.athleteId);
      expect(athletes.has(rep.athleteId)).toBe(true);
      expect(rep.set).toBeLessThanOrEqual(at.set.sets);
      expect(rep.rep).toBeLessThanOrEqual(at.set.reps);
      expect(rep.at.slice(0, 10)).toBe(dateOf.get(rep.sessionId));
    }
  });

  it('gives every row an id of its own, and every turn one answer', () => {
    const ids = [season.athletes, season.approaches, season.sessions, season.trials, reps].flatMap(
      (rows) => rows.map((row) => row.id),
    );
    expect(new Set(ids).size).toBe(ids.length);
    const turns = reps.map(
      (rep) =>
        `${rep.drillSetId}/${rep.athleteId}/${rep.set}/${rep.side}/${rep.variant}/${rep.rep}`,
    );
    expect(new Set(turns).size).toBe(turns.length);
  });

  it('has reps that a second coach watched too, and reads that were mostly taken right', () => {
    const twice = season.reps.filter((rep) => rep.device !== season.reps[0]!.device);
    const turn = (rep: Rep): string =>
      `${rep.drillSetId}/${rep.athleteId}/${rep.set}/${rep.side}/${rep.rep}`;
    const first = new Map(reps.map((rep) => [turn(rep), rep]));
    expect(twice.length).toBeGreaterThan(100);
    for (const rep of twice) expect(first.get(turn(rep))?.loggedBy).not.toBe(rep.loggedBy);
    const read = reps.filter((rep) => rep.exit !== null);
    const right = read.filter((rep) => rep.taken === rep.exit).length;
    expect(right / read.length).toBeGreaterThan(0.7);
    expect(right / read.length).toBeLessThan(0.97);
    // A wrong answer is a fault, whatever else was right.
    const wrong = read.filter((rep) => rep.right === false);
    expect(wrong.length).toBeGreaterThan(5);
    for (const rep of wrong) expect(rep.faults).toContain('wrong-side');
    for (const rep of reps.filter((rep) => rep.outcome !== 'skip'))
      for (const fault of rep.faults) expect(rep.could).toContain(fault);
  });

  it('has faults on fault reps only, and only those of the movement', () => {
    for (const rep of reps) {
      const codes = new Set(movementOf(rep.movement).faults.map((fault) => fault.code));
      expect(rep.faults.length > 0).toBe(rep.outcome === 'fault');
      for (const code of rep.faults) expect(codes.has(code)).toBe(true);
    }
  });

  it('moves with the day it is loaded, and nothing else changes', () => {
    const later = makeSeason(new Date('2031-07-02T12:00:00Z'), 'a password for tests');
    expect(later.reps.length).toBe(season.reps.length);
    expect(later.sessions.map((session) => session.title)).toEqual(
      season.sessions.map((session) => session.title),
    );
    expect(later.sessions.some((session) => session.date === '2031-07-02')).toBe(true);
    expect(later.reps.map((rep) => rep.faults)).toEqual(season.reps.map((rep) => rep.faults));
  });

  it('was cued as the application would have cued it', () => {
    const wrong: string[] = [];
    const work = season.athletes.flatMap((athlete) =>
      logged.map((movement) => ({ ...athlete, movement })),
    );
    for (const { id, name, movement } of work) {
      const own = reps.filter((rep) => rep.athleteId === id && rep.movement === movement.code);
      const sessions = [...new Set(own.map((rep) => rep.sessionId))];
      sessions.forEach((sessionId, i) => {
        const before = sessions.slice(0, i).flatMap((session): SessionFaults[] => {
          const all = own.filter((rep) => rep.sessionId === session);
          const ran = all.filter((rep) => rep.outcome !== 'skip');
          if (ran.length === 0) return [];
          const codes = [...new Set(ran.flatMap((rep) => rep.faults))];
          return [
            {
              date: dateOf.get(session)!,
              reps: ran.length,
              exposed: [...new Set(ran.flatMap(({ could }) => could!))].map((fault) => ({
                fault,
                reps: ran.filter(({ could }) => could!.includes(fault)).length,
              })),
              together: ran
                .filter(({ faults }) => faults.length > 0)
                .map(({ faults }) => ({ faults, reps: 1 })),
              faults: codes.map((fault) => ({
                fault,
                reps: ran.filter((rep) => rep.faults.includes(fault)).length,
              })),
              cues: [...new Set(ran.flatMap(({ cue }) => cue ?? []))].map((fault) => ({
                fault,
                last: ran.at(-1)!.at,
              })),
            },
          ];
        });
        const known = {
          faults: standingsOf(before, undefined, movement),
          told: toldOf(before),
          choice: null,
        };
        const cue = cueInForce(movement, 'root-cause', known)?.fault ?? null;
        const given = own.find((rep) => rep.sessionId === sessionId)!.cue;
        if (given !== cue) wrong.push(`${name} ${dateOf.get(sessionId)}: ${given} for ${cue}`);
      });
    }
    expect(wrong).toEqual([]);
  });

  it('has run-throughs that scatter about as the measured steps say', () => {
    const own = season.readings.filter(({ reading }) => reading.kind === 'run-through');
    expect(own.length).toBeGreaterThan(1);
    for (const { athleteId, reading } of own) {
      const athlete = season.athletes.find((athlete) => athlete.id === athleteId)!;
      const trials = season.trials.filter((trial) => trial.athleteId === athleteId);
      const current = currentModel({ trials, heightM: athlete.heightM });
      const { sdM: expected } = simulateRunUps({
        ...athleteSpread(current),
        lengthsM: Array.from({ length: 14 }, (_, i) => modelLengthM(current.model, i + 1)),
        startSdM: 0.02,
        marginM: 0,
        steering: { ...BY_EYE, steps: 4 },
        runs: 4_000,
        seed: 1,
      });
      const logged = reading.kind === 'run-through' ? runThroughs(reading.missesM).sdM! : NaN;
      expect(logged / expected).toBeGreaterThan(0.5);
      expect(logged / expected).toBeLessThan(2);
    }
  });

  it('has causes that lead to others: the reps hold no link to be wrong, and show the one that is not written', () => {
    const sets = groupBy(
      reps.filter((rep) => rep.movement === movement.code && rep.outcome !== 'skip'),
      (rep) => `${rep.athleteId}/${rep.sessionId}`,
    );
    const strata = [...sets.values()].map((own) => ({
      reps: own.length,
      together: own
        .filter((rep) => rep.faults.length > 0)
        .map(({ faults }) => ({ faults, reps: 1 })),
    }));
    const { links } = checkCauses(movement, strata);
    const told = (verdict: string) => links.filter((link) => link.verdict === verdict);
    expect(told('against')).toEqual([]);
    expect(told('missing')).toMatchObject([{ from: 'looks-down', to: 'over-line' }]);
    expect(told('holds').length).toBeGreaterThan(6);
  });
});

it('has a club’s figures and not a final’s: at the board, the box and the crease', () => {
  const year = new Date('2031-05-14').getFullYear();
  for (const { movement: code, choices, athleteIds } of season.approaches) {
    if (isSequence(choices)) continue;
    for (const id of athleteIds) {
      const { birthYear, ...person } = season.athletes.find((athlete) => athlete.id === id)!;
      const trials = season.trials.filter(({ athleteId }) => athleteId === id);
      const ageYears = year - birthYear!;
      const { layout } = solve(movementOf(code), choices, bodyOf({ ...person, trials, ageYears }));
      const fastest = Math.max(...layout!.footfalls.map(({ speedMps }) => speedMps));
      expect(fastest, `${person.name}, ${ageYears}`).toBeLessThan(ageYears < 18 ? 8 : 9.3);
    }
  }
});
