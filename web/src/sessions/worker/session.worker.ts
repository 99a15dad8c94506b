import { type Body, bodyOf } from '@gravek/core/layout/body';
import type { BodyLoad } from '@gravek/core/session/repLog';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { OnGround } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { Needs } from '@gravek/contract/run';
import { movementOf } from '@gravek/library/movement/movements';
import { chooseBlocks, type SetChoice } from '@gravek/library/session/chooseBlocks';
import { needsOf } from '@gravek/library/session/needs';
import { offersFor } from '@gravek/library/session/setOffers';
import { solveRuns } from '@gravek/library/session/sessionFigures';
import { type LoadsAsk, loadsOf } from '@gravek/library/session/sessionLoad';
import { type Base, type Finds, type Solved, solvedOf } from '@gravek/library/session/work';
import { expose } from 'comlink';
import { v7 as uuid } from 'uuid';

type SetOf = { set: DrillSet; base: Base | null };

export type RunsAsk = { sets: SetOf[]; athletes: Athlete[] };

/** By athlete the measures, and what was solved for them. */
export type RunsAnswer = [athleteId: string, body: Body, runs: Solved][];

export type ChooseAsk = {
  needs: Needs;
  athletes: Athlete[];
  bodies: [athleteId: string, body: Body][];
  plans: ApproachSummary[];
  /** the club's own movements */
  clubMovements: Movement[];
  ground: OnGround | null;
  lanes: number;
  on: string;
  seconds: number;
};

const bodies = new Map<string, Body>();

/** The same measures are the same body, for which all that was solved is known. */
const bodyKept = (body: Body): Body => {
  const measures = JSON.stringify(body);
  const before = bodies.get(measures);
  if (before) return before;
  bodies.set(measures, body);
  return body;
};

const byAthlete = (bodies: readonly [athleteId: string, body: Body][]): Map<string, Body> =>
  new Map(bodies.map(([id, body]) => [id, bodyKept(body)]));

const work = {
  /** all runs that the figures of a session ask for */
  runs: ({ sets, athletes }: RunsAsk): RunsAnswer => {
    const by = byAthlete(athletes.map((athlete) => [athlete.id, bodyOf(athlete)]));
    const bases = new Map(sets.map(({ set, base }) => [set.id, base]));
    solveRuns({
      drillSets: sets.map(({ set }) => set),
      baseOfSet: ({ id }) => bases.get(id) ?? null,
      bodies: by,
    });
    return [...by].map(([id, body]) => [id, body, solvedOf(body)]);
  },
  /** the blocks that do most for athletes within a time */
  choose: ({
    needs,
    athletes,
    bodies,
    plans,
    clubMovements,
    ground,
    lanes,
    on,
    seconds,
  }: ChooseAsk): SetChoice => {
    const finds: Finds = {
      planOf: (id) => plans.find((plan) => plan.id === id),
      movementOf: (code) => {
        try {
          return movementOf(code, clubMovements);
        } catch {
          return undefined;
        }
      },
    };
    const all = needsOf(athletes, needs, finds.movementOf, on);
    const offers = offersFor(all, {
      ...{ plans, athletes, finds, ground, newId: uuid },
      bodies: byAthlete(bodies),
      conditions: { lanes, people: athletes, on },
    });
    return chooseBlocks(all, offers, { seconds, lanes });
  },
  loads: (ask: LoadsAsk): Map<string, BodyLoad>[] =>
    loadsOf({ ...ask, bodies: [...byAthlete(ask.bodies)] }),
};

export type SessionWork = typeof work;

expose(work);
