import olderFaults from '../../data/olderFaults.json';

type Place = { phases: string[]; read?: boolean };
type OlderFault = { code?: unknown; phase?: unknown; phases?: unknown };

const isThing = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const ofBuiltIn = (basedOn: unknown, code: unknown): Place | undefined => {
  const table = olderFaults as Record<string, Record<string, Place>>;
  if (typeof basedOn !== 'string' || !Object.hasOwn(table, basedOn)) return undefined;
  const faults = table[basedOn]!;
  return typeof code === 'string' && Object.hasOwn(faults, code) ? faults[code] : undefined;
};

/**
 * A movement from before a fault named all its phases: each named the one on which it hung. A fault that a
 * copy has kept from its built-in movement is seen in as many phases as there, as far as the copy has them.
 * Anything else comes back as it is, for the check to say what is wrong with it.
 *
 * @param document as it was kept, in a file, a draft or a row
 * @param basedOn code of the built-in movement that it was copied from; its own code where it says none
 * @example
 * withFaultPhases({ phases: [{ code: 'a' }], faults: [{ code: 'f', phase: 'a' }] })
 * // { …, faults: [{ code: 'f', phases: ['a'] }] }
 */
export const withFaultPhases = <T>(document: T, basedOn?: string | null): T => {
  if (!isThing(document) || !Array.isArray(document.faults)) return document;
  const phases = Array.isArray(document.phases) ? (document.phases as unknown[]) : [];
  const codes = phases.flatMap((phase) =>
    isThing(phase) && typeof phase.code === 'string' ? [phase.code] : [],
  );
  const reads = new Set(
    phases.flatMap((phase) => (isThing(phase) && phase.read ? [phase.code] : [])),
  );
  const faults = (document.faults as unknown[]).map((fault) => {
    if (!isThing(fault) || !('phase' in fault) || 'phases' in fault) return fault;
    const { phase, ...rest } = fault as OlderFault & Record<string, unknown>;
    const builtIn = ofBuiltIn(basedOn ?? document.code, fault.code);
    const read = builtIn?.read === true && builtIn.phases.some((code) => reads.has(code));
    const shows = builtIn?.phases.filter((code) => (read ? reads.has(code) : codes.includes(code)));
    const shownPhases = read ? shows! : [...new Set([...(shows ?? []), phase])];
    return { ...rest, phases: shownPhases, ...(read && { read }) };
  });
  return { ...document, faults };
};
