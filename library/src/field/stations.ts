import { stationOf } from '@gravek/core/session/circuit';
import type { Circuit } from '@gravek/contract/circuit';
import type { DrillSet } from '@gravek/contract/drillSet';

/** The session, as far as groups go round its stations. */
export type GroupedSession = { drillSets: readonly DrillSet[]; circuit?: Circuit | undefined };

/** A group at a station: its place in the list of groups, or null where nobody is. */
export type AtStation = { setId: string; group: number | null };

/**
 * Which group is at which station in a round.
 *
 * @param round from 1; 0 while nobody goes round
 * @returns in the order of the stations; none while nobody goes round
 * @example groupsAt({ drillSets: [] }, 1) // []
 */
export const groupsAt = ({ drillSets, circuit }: GroupedSession, round: number): AtStation[] => {
  const stations = drillSets.filter((set) => set.station);
  if (!circuit || round === 0) return [];
  const places = circuit.groups.map((_, group) => stationOf(group, round, stations.length));
  return stations.map(({ id }, station) => {
    const group = places.indexOf(station);
    return { setId: id, group: group < 0 ? null : group };
  });
};

/**
 * Who of each station's set is at another station just now, and with which group.
 *
 * @returns by drill set, athletes with the reason; nobody while nobody goes round
 * @example elsewhereAt({ drillSets: [] }, 1).size // 0
 */
export const elsewhereAt = (
  session: GroupedSession,
  round: number,
): ReadonlyMap<string, ReadonlyMap<string, string>> =>
  new Map(
    groupsAt(session, round).map(({ setId, group }) => [
      setId,
      new Map(
        session.circuit!.groups.flatMap(({ name, athleteIds }, i) =>
          i === group ? [] : athleteIds.map((id) => [id, `With the ${name} at another station.`]),
        ),
      ),
    ]),
  );
