import type { Body, BodyLoad } from '@gravek/core';
import type { DrillSet } from '@gravek/contract';
import { setLoads, type Base, type Conditions, type Makes } from '@gravek/library';
import { expose } from 'comlink';

export type LoadsAsk = {
  sets: { set: DrillSet; base: Base | null }[];
  bodies: [athleteId: string, body: Body][];
  conditions: Pick<Conditions, 'people' | 'on'>;
  makes: [athleteAndMovement: string, makes: Makes][];
};

/** By drill set what it puts on each of its athletes. */
export type LoadsAnswer = Record<string, [athleteId: string, load: BodyLoad][]>;

const work = {
  loads: ({ sets, bodies, conditions, makes }: LoadsAsk): LoadsAnswer => {
    const made = new Map(makes);
    const makesOf: Conditions['makesOf'] = (id, movement) => made.get(`${id}/${movement}`);
    const by = new Map(bodies);
    return Object.fromEntries(
      sets.map(({ set, base }) => [
        set.id,
        [...setLoads(set, base, by, { ...conditions, makesOf })],
      ]),
    );
  },
};

export type LoadsWork = typeof work;

expose(work);
