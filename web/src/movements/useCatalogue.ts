import type { Movement } from '@gravek/contract/movement';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import type { NamedRuleSet } from '@gravek/contract/ruleSet';
import { isChain } from '@gravek/library/chains';
import { movementOf, MOVEMENTS } from '@gravek/library/movements';
import { RULE_SETS } from '@gravek/library/ruleSets';
import { useMemo } from 'react';
import { useClubMovements, useClubRuleSets } from '../api/queries';

const NONE: readonly ClubMovement[] = [];

export type Catalogue = {
  /** whether the club's own have come */
  ready: boolean;
  /** the club's own, those put away included */
  own: readonly ClubMovement[];
  documents: readonly Movement[];
  /** to choose from: the built-in ones, and the club's own that are not put away */
  all: readonly Movement[];
  /** a movement by its code; while the club's own are on their way, an empty one of that code */
  of: (code: string) => Movement;
};

const BLANK: Movement = { ...MOVEMENTS[0]!, name: '…', loads: [] };

/** Built-in movements and the club's own. */
export const useCatalogue = (): Catalogue => {
  const query = useClubMovements();
  const own = query.data ?? NONE;
  return useMemo(() => {
    const documents = own.map((one) => one.movement);
    return {
      ready: query.data !== undefined,
      own,
      documents,
      all: [...MOVEMENTS, ...own.filter((one) => !one.archived).map((one) => one.movement)],
      of: (code) =>
        query.data === undefined &&
        !isChain(code) &&
        !MOVEMENTS.some((movement) => movement.code === code)
          ? { ...BLANK, code }
          : movementOf(code, documents),
    };
  }, [own, query.data]);
};

/** Rule sets to choose from: those that ship, and the club's own that are not put away. */
export const useRuleSets = (): readonly NamedRuleSet[] => {
  const own = useClubRuleSets().data;
  return useMemo(() => [...RULE_SETS, ...(own ?? []).filter((one) => !one.archived)], [own]);
};
