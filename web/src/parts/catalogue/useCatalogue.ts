import type { Movement } from '@gravek/contract/movement';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import type { NamedRuleSet } from '@gravek/contract/ruleSet';
import { BUILT_IN } from '@gravek/library/movement/builtIn';
import { RULE_SETS } from '@gravek/library/movement/ruleSets';
import { useMemo } from 'react';
import { useClubMovements, useClubRuleSets } from '../../api/queries';
import { documentOf, nameOf, useBuiltIn } from './documents';

const NONE: readonly ClubMovement[] = [];

export type Catalogue = {
  /** whether the club's own have come */
  ready: boolean;
  /** the club's own, those put away included */
  own: readonly ClubMovement[];
  documents: readonly Movement[];
  /**
   * A movement by its code; while the club's own are on their way, an empty one of that code. It is asked
   * for while a page is drawn, which waits for the document.
   *
   * @throws {RangeError} when there is no movement of that code
   */
  of: (code: string) => Movement;
  /** what a movement is called, without its document */
  nameOf: (code: string) => string;
};

/** Built-in movements and the club's own. */
export const useCatalogue = (): Catalogue => {
  const query = useClubMovements();
  const own = query.data ?? NONE;
  const ready = query.data !== undefined;
  return useMemo(() => {
    const documents = own.map((movement) => movement.movement);
    return {
      ready,
      own,
      documents,
      of: (code) => {
        const found = documentOf(code, documents);
        if (found) return found;
        if (ready) throw new RangeError(`movement must be one of the library, got ${code}`);
        return { ...documentOf(BUILT_IN[0]!.code, [])!, code, name: '…', loads: [] };
      },
      nameOf: (code) => nameOf(code, documents) ?? '…',
    };
  }, [own, ready]);
};

/**
 * Movements to choose from: the built-in ones and the club's own that are not put away.
 *
 * @param wanted false as long as nobody chooses
 */
export const useAllMovements = (wanted = true) => {
  const builtIn = useBuiltIn(wanted);
  const own = useClubMovements();
  const data = useMemo(
    () =>
      builtIn.data &&
      own.data && [
        ...builtIn.data,
        ...own.data.filter((movement) => !movement.archived).map((movement) => movement.movement),
      ],
    [builtIn.data, own.data],
  );
  const failed = builtIn.error ? builtIn : own;
  return { data, error: failed.error, refetch: failed.refetch };
};

/** Rule sets to choose from: those that ship, and the club's own that are not put away. */
export const useRuleSets = (): readonly NamedRuleSet[] => {
  const own = useClubRuleSets().data;
  return useMemo(() => [...RULE_SETS, ...(own ?? []).filter((set) => !set.archived)], [own]);
};
