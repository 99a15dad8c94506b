import { formatLength } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import type { TypedAthlete } from '@gravek/library/roster/rosterText';
import type { TableAthlete } from '@gravek/library/roster/rosterTable';
import { useState } from 'react';
import { api, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { dayName } from '../controls/dates';
import { counted } from '@gravek/core/words';
import { tell } from '../controls/toasts';
import { useLengthStyle } from '../member/member';

/** Somebody who is to come into the club, with the id that they keep however often they are sent. */
export type Coming = { id: string; athlete: TypedAthlete | TableAthlete };

/**
 * Puts many athletes into the club, with one way back for all.
 *
 * @param onDone once all are there
 */
export const useAddAll = (onDone: () => void) => {
  const [done, setDone] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const write = useWrite((body: object) => api.post<Athlete>('/athletes', body), 'athletes', 'run');
  const takeBack = useWrite(
    (id: string) => api.put(`/athletes/${id}/away`, { away: true }),
    'athletes',
    'run',
  );
  const undo = async (list: readonly Coming[]): Promise<void> => {
    try {
      for (const { id } of list) await takeBack.mutateAsync(id);
      tell(`${counted(list.length, 'athlete is', 'athletes are')} put away again.`);
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  const add = async (list: readonly Coming[]): Promise<void> => {
    setProblem(null);
    try {
      for (const [i, { id, athlete }] of list.entries()) {
        setDone(i);
        await write.mutateAsync({ shoeM: null, ...athlete, id });
      }
      tell(
        `${counted(list.length, 'athlete is', 'athletes are')} in the club.`,
        () => void undo(list),
      );
      onDone();
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setDone(null);
    }
  };
  return { add, done, problem, setProblem };
};

/** What becomes of a line, in words: squad, sides, height, birthday, positions. */
export const AthleteWords = ({ athlete }: { athlete: TypedAthlete | TableAthlete }) => {
  const { unit } = useLengthStyle();
  const { name, squad, hand, takeoffFoot, heightM, birthYear, bornOn, positions } = athlete;
  // Nobody is told their height in shoes.
  const style = { unit: unit === 'shoes' ? ('metric' as const) : unit };
  return (
    <>
      <strong>{name}</strong>, {[squad, ...positions].join(', ')}, {hand}-handed, takes off{' '}
      {takeoffFoot}
      {heightM !== null && `, ${formatLength(heightM, style)}`}
      {bornOn !== null ? `, born ${dayName(bornOn)}` : birthYear !== null && `, born ${birthYear}`}
    </>
  );
};
