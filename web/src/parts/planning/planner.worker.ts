import {
  simulateRunUps,
  type RunUpSimulation,
  type RunUpSpread,
} from '@gravek/core/runup/simulateRunUps';
import { expose } from 'comlink';
import type { Movement } from '@gravek/contract/movement';
import { lawsBroken, type Broken } from '@gravek/library/movement/laws';
import { squadLine, type SquadAsk, type SquadLine } from '@gravek/library/planning/squad';

const PART = 6;

const work = {
  /** Many run-ups of each of some plans, in their order. */
  simulate: (plans: RunUpSimulation[]): RunUpSpread[] => plans.map(simulateRunUps),

  /** The laws of the ground that a movement breaks. */
  laws: (movement: Movement): Broken[] => lawsBroken(movement),

  /** One line an athlete; tells after every few how many are done. */
  squad: (asks: SquadAsk[], onDone: (count: number) => void): SquadLine[] => {
    const lines: SquadLine[] = [];
    for (const ask of asks) {
      lines.push(squadLine(ask));
      if (lines.length % PART === 0) onDone(lines.length);
    }
    return lines;
  },
};

export type PlannerWork = typeof work;

expose(work);
