import type { RepCounts } from './cueEffect';

/** Where a fault can be seen. */
export type FaultPlace = {
  code: string;
  /** phases in which it can be seen, on all exits and both sides; of a wrong answer the phases with its reads */
  phases: readonly string[];
  /** it is a wrong answer to a read */
  read?: boolean | undefined;
};

/** What of a rep there was to be seen. */
export type RepView = {
  /** codes of the phases that were in it: of the drill's part, on the exit that was taken */
  phases: readonly string[];
  /** the exit that a read asked for, as `phase:option`; null where none was asked */
  asked: string | null;
  /** codes of faults that are none in the way it was taught */
  without: readonly string[];
};

/**
 * The faults that a rep could show, in the order in which they are given. The field screen offers these and
 * no others, and the rep counts for these and no others: what could not be tapped was not absent.
 *
 * @returns codes; a wrong answer only where its read was asked
 * @example
 * const faults = [
 *   { code: 'heels', phases: ['back'], read: false },
 *   { code: 'wrong-way', phases: ['back'], read: true },
 * ];
 * couldShow(faults, { phases: ['set', 'back'], asked: null, without: [] }) // ['heels']
 * couldShow(faults, { phases: ['set'], asked: 'back:left', without: [] }) // ['wrong-way']
 * Source: domain definitions, section 5.
 */
export const couldShow = (faults: readonly FaultPlace[], rep: RepView): string[] =>
  faults
    .filter(({ code, phases, read }) => {
      if (rep.without.includes(code)) return false;
      if (!read) return phases.some((phase) => rep.phases.includes(phase));
      const askedIn = rep.asked?.split(':')[0];
      return askedIn !== undefined && (phases.length === 0 || phases.includes(askedIn));
    })
    .map(({ code }) => code);

/**
 * Of each fault the reps that could show it and were watched, and how many of them showed it: what every
 * rate, band and state rests on.
 *
 * @returns counts by the fault's code
 * @example
 * const faults = [{ code: 'heels', phases: ['back'], read: false }];
 * const rep = { phases: ['back'], faults: [], asked: null, without: [] };
 * // Of two reps somebody watched the first.
 * exposure({ faults, reps: [{ ...rep, watched: true }, { ...rep, watched: false }] }) // { heels: { reps: 1, faults: 0 } }
 * Source: domain definitions, section 5.
 */
export const exposure = ({
  faults,
  reps,
}: {
  faults: readonly FaultPlace[];
  reps: readonly (RepView & { faults: readonly string[]; watched: boolean })[];
}): Record<string, RepCounts> => {
  const views = reps
    .filter(({ watched }) => watched)
    .map((rep) => ({ could: couldShow(faults, rep), shown: rep.faults }));
  return Object.fromEntries(
    faults.map(({ code }) => {
      const exposed = views.filter(({ could }) => could.includes(code));
      const shown = exposed.filter((view) => view.shown.includes(code)).length;
      return [code, { reps: exposed.length, faults: shown }];
    }),
  );
};
