import type { DrillChoiceInput, RungChoiceInput } from '@gravek/contract/coachChoices';
import { api } from '../../api/client';
import { useWrite } from '../../api/queries';

/** Keeps a coach's word on the rung that an athlete stands on. */
export const useChooseRung = (athleteId: string) =>
  useWrite(
    (body: RungChoiceInput) => api.post(`/athletes/${athleteId}/rungs`, body),
    'faults',
    'sessions',
  );

/** Keeps a coach's word on the drill of a progression that an athlete is at. */
export const useChooseDrill = () =>
  useWrite(
    ({ athleteId, ...body }: DrillChoiceInput & { athleteId: string }) =>
      api.post(`/athletes/${athleteId}/drills`, body),
    'faults',
  );
