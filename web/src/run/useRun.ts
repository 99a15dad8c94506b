import { runState, type LoggedRep, type Outcome, type RunState, type Turn } from '@gravek/core';
import type { DrillSet, Rep, RunBundle } from '@gravek/contract';
import { barredBy, movementOf, whyBarred } from '@gravek/library';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { v7 as uuid } from 'uuid';
import { useMember } from '../app/member';
import { queue, type QueuedRep } from './store';
import { logRep } from './sync';

const NONE: readonly QueuedRep[] = [];

/** All rows of a session: what the server has, and what waits on this phone. */
const useLog = (bundle: RunBundle): { log: Rep[]; waiting: readonly QueuedRep[] } => {
  const waiting =
    useLiveQuery(
      () => queue.where('sessionId').equals(bundle.session.id).toArray(),
      [bundle.session.id],
    ) ?? NONE;
  const log = useMemo(() => {
    const rows = new Map<string, Rep>(bundle.reps.map((rep) => [rep.id, rep]));
    for (const rep of waiting) rows.set(rep.id, rep);
    return [...rows.values()];
  }, [bundle.reps, waiting]);
  return { log, waiting };
};

export type Run = {
  states: { set: DrillSet; state: RunState }[];
  log: Rep[];
  waiting: readonly QueuedRep[];
  /** why athletes of the set do not take part, by athlete */
  away: Map<string, string>;
  answer: (
    turn: Turn,
    outcome: Exclude<Outcome, 'void'>,
    faults: string[],
    cue: string | null,
  ) => Promise<void>;
  undo: (last: LoggedRep) => Promise<void>;
};

/** A session under way, worked out anew from its log on every change. */
export const useRun = (bundle: RunBundle): Run => {
  const { club, today } = useMember();
  const { log, waiting } = useLog(bundle);
  const { session, athletes, approaches, movements } = bundle;

  const away = useMemo(() => {
    const why = new Map<string, string>();
    for (const set of session.drillSets) {
      const approach = approaches.find((one) => one.id === set.approachId);
      for (const id of set.athleteIds) {
        const person = athletes.find((one) => one.id === id);
        if (!person) why.set(id, 'An athlete is not in the club any more.');
        else if (person.archived) why.set(id, `${person.name} was archived and is passed over.`);
        else if (approach) {
          const barred = barredBy(
            movementOf(approach.movement, movements),
            person.restrictions,
            today,
          );
          if (barred) why.set(id, `${whyBarred(person.name, barred)} Passed over.`);
        }
      }
    }
    return why;
  }, [session, athletes, approaches, movements, today]);

  const states = useMemo(() => {
    const rows = log.map((rep): LoggedRep => ({ ...rep, atMs: Date.parse(rep.at) }));
    const gone = new Set(away.keys());
    return session.drillSets.map((set) => ({
      set,
      state: runState(
        {
          drillSetId: set.id,
          athleteIds: set.athleteIds,
          sets: set.sets,
          reps: set.reps,
          sides: set.sides,
          restS: set.restS,
          setRestS: set.setRestS,
        },
        rows.filter((row) => row.drillSetId === set.id),
        gone,
      ),
    }));
  }, [log, session, away]);

  const row = (turn: Turn, outcome: Outcome): Rep => ({
    id: uuid(),
    sessionId: session.id,
    drillSetId: turn.drillSetId,
    athleteId: turn.athleteId,
    set: turn.set,
    side: turn.side,
    rep: turn.rep,
    outcome,
    voids: null,
    faults: [],
    cue: null,
    at: new Date().toISOString(),
  });

  return {
    states,
    log,
    waiting,
    away,
    answer: (turn, outcome, faults, cue) => logRep(club.id, { ...row(turn, outcome), faults, cue }),
    undo: (last) => logRep(club.id, { ...row(last, 'void'), voids: last.id }),
  };
};
