import type { CueChoiceInput } from '@gravek/contract/coachChoices';
import { api } from '../../api/client';
import { useWrite } from '../../api/queries';

/** Keeps a coach's word on an athlete's cue. */
export const useChooseCue = (athleteId: string) =>
  useWrite(
    (body: CueChoiceInput) => api.post(`/athletes/${athleteId}/cues`, body),
    'faults',
    'run',
    'sessions',
  );
