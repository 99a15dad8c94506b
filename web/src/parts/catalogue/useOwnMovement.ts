import type { Movement } from '@gravek/contract/movement';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import { BUILT_IN } from '@gravek/library/movement/builtIn';
import { v7 as uuid } from 'uuid';
import { api } from '../../api/client';
import { useWrite } from '../../api/queries';

/** Adds a movement to the club's own: a copy of a built-in one, or one from a file. */
export const useAddMovement = () => {
  const write = useWrite(
    (body: object) => api.post<ClubMovement>('/movements', body),
    'movements',
    'run',
  );
  const add = (movement: Movement, name = movement.name): Promise<ClubMovement> => {
    const id = uuid();
    const builtIn = BUILT_IN.find((other) => other.code === movement.code);
    return write.mutateAsync({
      id,
      basedOn: builtIn ? { code: builtIn.code, revision: movement.revision } : null,
      movement: { ...movement, code: id, name },
    });
  };
  return { add, busy: write.isPending };
};
