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
  clubMovements: readonly ClubMovement[];
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
  const clubDocuments = query.data ?? NONE;
  const ready = query.data !== undefined;
  return useMemo(() => {
    const documents = clubDocuments.map((movement) => movement.movement);
    return {
      ready,
      clubMovements: clubDocuments,
      documents,
      of: (code) => {
        const found = documentOf(code, documents);
        if (found) return found;
        if (ready) throw new RangeError(`movement must be one of the library, got ${code}`);
        return { ...documentOf(BUILT_IN[0]!.code, [])!, code, name: '…', loads: [] };
      },
      nameOf: (code) => nameOf(code, documents) ?? '…',
    };
  }, [clubDocuments, ready]);
};

/**
 * Movements to choose from: the built-in ones and the club's own that are not put away.
 *
 * @param wanted false as long as nobody chooses
 */
export const useAllMovements = (wanted = true) => {
  const builtIn = useBuiltIn(wanted);
  const clubMovementList = useClubMovements();
  const data = useMemo(
    () =>
      builtIn.data &&
      clubMovementList.data && [
        ...builtIn.data,
        ...clubMovementList.data
          .filter((movement) => !movement.archived)
          .map((movement) => movement.movement),
      ],
    [builtIn.data, clubMovementList.data],
  );
  const failed = builtIn.error ? builtIn : clubMovementList;
  return { data, error: failed.error, refetch: failed.refetch };
};

/** Rule sets to choose from: those that ship, and the club's own that are not put away. */
export const useRuleSets = (): readonly NamedRuleSet[] => {
  const clubRules = useClubRuleSets().data;
  return useMemo(
    () => [...RULE_SETS, ...(clubRules ?? []).filter((set) => !set.archived)],
    [clubRules],
  );
};
