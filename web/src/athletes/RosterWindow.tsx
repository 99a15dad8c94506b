import type { ComingAthlete, RosterLine } from '@gravek/library/roster/coming';
import { formatLength } from '@gravek/core/units';
import { counted } from '@gravek/core/words';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { Athlete } from '@gravek/contract/athlete';
import { api, sentenceOf } from '../api/client';
import { useAthletes, useWrite } from '../api/queries';
import { Conflict } from '../controls/Conflict';
import { dayName } from '../controls/dates';
import { tell } from '../controls/toasts';
import { AskWindow } from '../controls/Window';
import { useLengthStyle } from '../member/member';

/** Somebody who is to come into the club, with the id that they keep however often they are sent. */
type Coming = { id: string; athlete: ComingAthlete };

/** Puts many athletes into the club, with one way back for all. */
const useAddAll = (onDone: () => void) => {
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
        await write.mutateAsync({ ...athlete, id });
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
  return { add, done, problem };
};

/** What becomes of a line, in words: squad, sides, height, birthday, positions. */
const AthleteWords = ({ athlete }: { athlete: ComingAthlete }) => {
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

/** More than these are counted, not written out. */
const SHOWN = 80;

const lower = (name: string): string => name.trim().toLowerCase();

/**
 * Athletes that are about to come into the club: what becomes of each line, and then all at once.
 *
 * @param ids by name in small letters, so that a press after a lost answer makes nobody twice
 * @param problem of what was typed or chosen, in words
 */
export const RosterWindow = ({
  title,
  lines,
  ids,
  onIds,
  problem: wrong = null,
  onClose,
  onDone,
  children,
}: {
  title: string;
  lines: readonly RosterLine[];
  ids: Readonly<Record<string, string>>;
  onIds: (ids: Record<string, string>) => void;
  problem?: string | null;
  onClose: () => void;
  onDone: () => void;
  children: React.ReactNode;
}) => {
  const here = useAthletes().data ?? [];
  const { add, done, problem } = useAddAll(onDone);
  const athleteByName = new Map(
    here.filter(({ archived }) => !archived).map(({ id, name }) => [lower(name), id]),
  );
  // Somebody of the same name is there already, unless this window made them.
  const isHere = ({ name }: ComingAthlete): boolean => {
    const id = athleteByName.get(lower(name));
    return id !== undefined && id !== ids[lower(name)];
  };
  const good = lines.flatMap(({ athlete }) => athlete ?? []);
  const fresh = good.filter((athlete) => !isHere(athlete));
  const refused = lines.length - good.length;
  const kept = good.length - fresh.length;
  const addFresh = (): void => {
    const all = { ...ids };
    for (const { name } of fresh) all[lower(name)] ??= uuid();
    onIds(all);
    void add(fresh.map((athlete) => ({ id: all[lower(athlete.name)]!, athlete })));
  };
  return (
    <AskWindow
      title={title}
      size="lg"
      scrollable
      act={
        done !== null
          ? `Adding ${done + 1} of ${fresh.length} …`
          : `Add ${counted(fresh.length, 'athlete')}`
      }
      disabled={fresh.length === 0 || done !== null}
      onClose={onClose}
      onSubmit={addFresh}
    >
      {children}
      {lines.length > 0 && (
        <>
          <p className="mb-0">
            <strong>{counted(fresh.length, 'athlete comes', 'athletes come')} into the club</strong>
            {refused > 0 && `, ${counted(refused, 'line does', 'lines do')} not`}
            {kept > 0 && `, ${counted(kept, 'name is', 'names are')} there already`}. Nothing is
            kept yet.
          </p>
          <ol className="list-plain small-text" aria-label="What becomes of each line">
            {lines.slice(0, SHOWN).map(({ line, text, athlete, why }) => (
              <li key={line}>
                <span className="figure quiet">{line}</span>{' '}
                {athlete === null ? (
                  <span className="field-message" role="alert">
                    “{text}”: {why}
                  </span>
                ) : isHere(athlete) ? (
                  <span className="quiet">
                    {athlete.name} is in the club already and stays as they are.
                  </span>
                ) : (
                  <AthleteWords athlete={athlete} />
                )}
              </li>
            ))}
            {lines.length > SHOWN && <li className="quiet">and {lines.length - SHOWN} more</li>}
          </ol>
        </>
      )}
      <Conflict problem={problem ? `${problem} Nothing that was typed is lost.` : wrong} />
    </AskWindow>
  );
};
