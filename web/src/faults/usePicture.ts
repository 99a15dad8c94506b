import type { FaultCount, Movement } from '@gravek/contract';
import type { AthleteFaults } from '@gravek/library';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { wrap, type Remote } from 'comlink';
import { useMember } from '../app/member';
import type { FaultWork } from './faults.worker';

let worker: Remote<FaultWork> | undefined;

const theWorker = (): Remote<FaultWork> =>
  (worker ??= wrap<FaultWork>(
    new Worker(new URL('./faults.worker.ts', import.meta.url), { type: 'module' }),
  ));

/** Counts are large; a number stands for each list, so that it need not be read to know it again. */
const numbers = new WeakMap<object, number>();
let last = 0;

const numberOf = (list: object): number => {
  const known = numbers.get(list);
  if (known !== undefined) return known;
  last += 1;
  numbers.set(list, last);
  return last;
};

/**
 * How athletes stand, worked out beside the interface; undefined while it is at it.
 *
 * @param own the club's own movements
 */
export const usePicture = (counts: readonly FaultCount[] | undefined, own: readonly Movement[]) => {
  const { cueSchool } = useMember().club;
  return useQuery<AthleteFaults[]>({
    queryKey: ['picture', cueSchool, counts && numberOf(counts), numberOf(own)],
    enabled: counts !== undefined,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    queryFn: () => theWorker().picture([...counts!], cueSchool, [...own]),
  });
};
