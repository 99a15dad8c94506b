import type { CueSchool } from '@gravek/core';
import type { FaultCount, Movement } from '@gravek/contract';
import { athleteFaults, MOVEMENTS, type AthleteFaults } from '@gravek/library';
import { expose } from 'comlink';

const work = {
  /** Every athlete's faults, movement by movement. */
  picture: (counts: FaultCount[], school: CueSchool, own: Movement[]): AthleteFaults[] =>
    [...MOVEMENTS, ...own].flatMap((movement) => athleteFaults(movement, counts, school)),
};

export type FaultWork = typeof work;

expose(work);
