import type { RungChoiceInput } from '@gravek/contract/faults';
import { api } from '../api/client';
import { useWrite } from '../api/queries';

/** Keeps a coach's word on the rung that an athlete stands on. */
export const useChooseRung = (athleteId: string) =>
  useWrite(
    (body: RungChoiceInput) => api.post(`/athletes/${athleteId}/rungs`, body),
    'faults',
    'sessions',
  );
