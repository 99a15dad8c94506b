import { bodyOf } from '@gravek/core/layout/body';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type { Circuit, Group } from '@gravek/contract/circuit';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { SessionInput } from '@gravek/contract/session';
import { stationNeedsS } from '@gravek/library/session/atStation';
import { GROUPED_BY, type GroupedBy, makeGroups } from '@gravek/library/session/makeGroups';
import { mayRun } from '@gravek/library/session/sessionFit';
import { lanesOfStation } from '@gravek/library/session/timeAxis';
import { type Base, demandOfSet } from '@gravek/library/session/work';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNeeds } from '../api/queries';
import { Field } from '../controls/Field';
import { tell } from '../controls/toasts';
import { NumberAt, TextAt } from '../parts/fields/At';

const BY_NAMES: Record<GroupedBy, string> = {
  mixed: 'mixed',
  position: 'position',
  need: 'what they work on',
  height: 'height',
  hand: 'hand',
};

const USUAL: Pick<Circuit, 'minutes' | 'changeS'> = { minutes: 8, changeS: 60 };
const MOST_AT_FIRST = 4;
/** A station for fewer minutes than these is over before it has begun. */
const LEAST_MIN = 4;
/** For more of them nobody stays at one thing. */
const MOST_MIN = 20;

type Club = {
  athletes: readonly Athlete[];
  baseOfSet: (set: DrillSet) => Base | null;
  date: string;
};

/** Stations with everybody of the groups who may do what is done there. */
const withGroups = (
  drillSets: readonly DrillSet[],
  groups: readonly Group[],
  { athletes, baseOfSet, date }: Club,
): DrillSet[] => {
  const ids = groups.flatMap(({ athleteIds }) => athleteIds);
  const people = ids.flatMap((id) => athletes.find((athlete) => athlete.id === id) ?? []);
  return drillSets.map((set) => {
    if (!set.station) return set;
    const base = baseOfSet(set);
    const able = mayRun(base ? demandOfSet(base, set) : [], people, date);
    return { ...set, athleteIds: able.map(({ id }) => id) };
  });
};

/** Sets as they were changed; one that has become a station is for the groups. */
export const withNewStations = (
  before: readonly DrillSet[],
  after: readonly DrillSet[],
  circuit: Circuit,
  club: Club,
): DrillSet[] => {
  const filled = withGroups(after, circuit.groups, club);
  return after.map((set, i) => {
    const wasStation = before.find(({ id }) => id === set.id)?.station ?? false;
    return set.station && !wasStation ? filled[i]! : set;
  });
};

/** Whoever is in any of these sets. */
const idsIn = (sets: readonly DrillSet[]): string[] => [
  ...new Set(sets.flatMap((set) => set.athleteIds)),
];

/** Minutes that the longest station needs, as far as they fit into the slot; the usual ones where nothing is known. */
const minutesIn = (slotMin: number | null, stations: number, longestS: number): number => {
  const needs = longestS > 0 ? Math.ceil(longestS / 60) : USUAL.minutes;
  const fits =
    slotMin === null
      ? MOST_MIN
      : Math.floor((slotMin - ((stations - 1) * USUAL.changeS) / 60) / stations);
  return Math.max(LEAST_MIN, Math.min(MOST_MIN, needs, fits));
};

/** All sets of a session as stations, and everybody of them in groups that go round. */
export const intoGroups = <S extends Pick<SessionInput, 'drillSets' | 'circuit'>>(
  draft: S,
  club: Club,
  { slotMin, lanes }: { slotMin: number | null; lanes: number },
): S => {
  const people = idsIn(draft.drillSets).flatMap(
    (id) => club.athletes.find((athlete) => athlete.id === id) ?? [],
  );
  const many = Math.min(MOST_AT_FIRST, draft.drillSets.length, Math.ceil(people.length / 2));
  const groups = makeGroups(people, { many, by: 'mixed' });
  const stations = draft.drillSets.map((set) => ({ ...set, station: true }));
  const drillSets = withGroups(stations, groups, club);
  const circuit = { ...USUAL, groups };
  const size = Math.max(0, ...groups.map(({ athleteIds }) => athleteIds.length));
  const conditions = {
    lanes: lanesOfStation({ drillSets, circuit }, lanes),
    people: club.athletes,
    on: club.date,
  };
  const [first] = people;
  const longestS = Math.max(
    0,
    ...drillSets.map((set) =>
      stationNeedsS(set, club.baseOfSet(set), first && bodyOf(first), conditions, size),
    ),
  );
  const minutes = minutesIn(slotMin, stations.length, longestS);
  return { ...draft, drillSets, circuit: { ...circuit, minutes } };
};

/** Groups that go round the stations of a session on one clock: made by what is chosen, then by hand. */
export const Groups = ({
  draft,
  circuit,
  club,
  message,
  onDraft,
}: {
  draft: SessionInput;
  circuit: Circuit;
  club: Club;
  message: string | undefined;
  onDraft: (change: Pick<SessionInput, 'drillSets' | 'circuit'>) => void;
}) => {
  const [by, setBy] = useState<GroupedBy>('mixed');
  /** whoever is picked up to be put into another group */
  const [picked, setPicked] = useState<string | null>(null);
  const needs = useNeeds(club.date);
  const { groups } = circuit;
  const stations = draft.drillSets.filter((set) => set.station);
  const grouped = new Set(groups.flatMap(({ athleteIds }) => athleteIds));
  const left = idsIn(draft.drillSets).filter((id) => !grouped.has(id));
  const firstName = (id: string): string =>
    club.athletes.find((athlete) => athlete.id === id)?.name.split(' ')[0] ?? '?';
  const setGroups = (next: Group[]): void =>
    onDraft({
      drillSets: withGroups(draft.drillSets, next, club),
      circuit: { ...circuit, groups: next },
    });
  const make = (many: number, how: GroupedBy): void => {
    const ids = [...grouped, ...left];
    const needOf = (id: string): string => {
      const cue = needs.data?.cues.find(({ athleteId }) => athleteId === id);
      return cue ? `${cue.movement} ${cue.fault}` : '';
    };
    setGroups(
      makeGroups(
        ids.flatMap((id) => club.athletes.find((athlete) => athlete.id === id) ?? []),
        { many, by: how, needOf },
      ),
    );
    setPicked(null);
  };
  const putInto = (place: number): void => {
    if (picked === null) return;
    setGroups(
      groups.map((group, i) => {
        const others = group.athleteIds.filter((id) => id !== picked);
        return { ...group, athleteIds: i === place ? [...others, picked] : others };
      }),
    );
    setPicked(null);
  };
  const member = (id: string) => (
    <button
      key={id}
      type="button"
      className="pick"
      aria-pressed={picked === id}
      onClick={() => setPicked(picked === id ? null : id)}
    >
      {firstName(id)}
    </button>
  );
  return (
    <section className="panel stack groups" aria-label="Groups">
      <div className="set-fields">
        <Field label="Groups">
          <Form.Select
            value={groups.length}
            onChange={(event) => make(Number(event.target.value), by)}
          >
            {Array.from({ length: Math.max(stations.length, groups.length) }, (_, i) => i + 1).map(
              (many) => (
                <option key={many} value={many}>
                  {many}
                </option>
              ),
            )}
          </Form.Select>
        </Field>
        <Field label="Made by">
          <Form.Select
            value={by}
            onChange={(event) => {
              const how = GROUPED_BY.find((way) => way === event.target.value)!;
              setBy(how);
              make(groups.length, how);
            }}
          >
            {(Object.keys(BY_NAMES) as GroupedBy[]).map((way) => (
              <option key={way} value={way} disabled={way === 'need' && !needs.data}>
                {BY_NAMES[way]}
              </option>
            ))}
          </Form.Select>
        </Field>
        <NumberAt at="circuit.minutes" label="Minutes at each" decimals={0} />
        <NumberAt at="circuit.changeS" label="To change, s" decimals={0} />
        <Button
          variant="outline-dark"
          className="align-self-end ms-auto"
          onClick={() => {
            const { drillSets } = draft;
            onDraft({
              drillSets: drillSets.map(({ station: _, coach: _coach, ...set }) => set),
              circuit: undefined,
            });
            tell('Nobody goes round any more.', () => onDraft({ drillSets, circuit }));
          }}
        >
          No groups
        </Button>
      </div>
      {(message ?? groups.length > stations.length) && (
        <div className="field-message" role="alert">
          {message ??
            `${counted(groups.length, 'group')} and ${counted(stations.length, 'station')}: mark another set as a station, or make fewer groups.`}
        </div>
      )}
      <div className="group-columns">
        {groups.map((group, i) => (
          <div key={i} role="group" aria-label={group.name || `Group ${i + 1}`}>
            <TextAt at={`circuit.groups[${i}].name`} label={`Group ${i + 1}`} />
            <div className="group-members">
              {group.athleteIds.map(member)}
              {picked !== null && !group.athleteIds.includes(picked) && (
                <Button size="sm" variant="outline-dark" onClick={() => putInto(i)}>
                  {firstName(picked)} here
                </Button>
              )}
            </div>
          </div>
        ))}
      </div>
      {left.length > 0 && (
        <div className="group-members">
          <span className="small-text">In no group:</span> {left.map(member)}
        </div>
      )}
      <div className="small-text quiet">
        Press a name, then the group to put it into. Each group begins at the station of its number
        and goes on to the next.
      </div>
    </section>
  );
};
