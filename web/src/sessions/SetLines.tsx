import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import type { Body } from '@gravek/core/layout/body';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { ApproachSummary } from '@gravek/contract/plan';
import { barredBy } from '@gravek/library/session/restrictions';
import type { SessionFigures } from '@gravek/library/session/sessionFigures';
import type { Conditions } from '@gravek/library/session/sessionTime';
import { demandOfSet } from '@gravek/library/session/work';
import { Empty } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { useLengthStyle } from '../member/member';
import { SetForm } from './SetForm';
import { axisMinutes, SetLine } from './SetLine';

/** The drill sets of a session, a line each on one time axis; a line opens in place, and is moved by hand or key. */
export const SetLines = ({
  sets,
  figures,
  bodies,
  athletes,
  plans,
  makesOf,
  date,
  lanes,
  slotMin,
  opened,
  messages,
  mayPlan,
  inGroups,
  onOpen,
  onSets,
}: {
  sets: readonly DrillSet[];
  figures: SessionFigures;
  bodies: ReadonlyMap<string, Body>;
  athletes: Athlete[];
  plans: ApproachSummary[];
  makesOf: NonNullable<Conditions['makesOf']>;
  date: string;
  lanes: number;
  /** minutes of the slot; null where there is none */
  slotMin: number | null;
  /** id of the set whose line is open */
  opened: string | null;
  /** what is wrong, by field */
  messages: Readonly<Record<string, string>>;
  mayPlan: boolean;
  /** groups go round those that are stations */
  inGroups: boolean;
  onOpen: (setId: string | null) => void;
  onSets: (sets: DrillSet[]) => void;
}) => {
  const style = useLengthStyle();
  const setSet = (i: number, change: Partial<DrillSet>): void =>
    onSets(sets.map((set, j) => (j === i ? { ...set, ...change } : set)));
  const move = (from: number, to: number): void => onSets(arrayMove([...sets], from, to));
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = ({ active, over }: DragEndEvent): void => {
    const place = (id: unknown): number => sets.findIndex((set) => set.id === id);
    if (over && active.id !== over.id) move(place(active.id), place(over.id));
  };
  const takeOut = (i: number): void => {
    onSets(sets.filter((_, j) => j !== i));
    tell('The drill set is taken out.', () => onSets([...sets]));
  };
  /** The athletes of a set on all of them, but for what somebody is held back from. */
  const onAll = (i: number): (() => void) | null => {
    const { athleteIds } = sets[i]!;
    const shared = sets.map((set, j) => {
      const { base } = figures.sets[j]!;
      const barred = athletes.filter(
        (athlete) => base && barredBy(demandOfSet(base, set), athlete.restrictions, date),
      );
      const ids = athleteIds.filter((id) => barred.every((athlete) => athlete.id !== id));
      return j === i || ids.join() === set.athleteIds.join() ? set : { ...set, athleteIds: ids };
    });
    if (shared.every((set, j) => set === sets[j])) return null;
    return () => {
      onSets(shared);
      tell(`${counted(athleteIds.length, 'athlete')} in all sets.`, () => onSets([...sets]));
    };
  };
  const axisS = Math.max(60, figures.totalS, (slotMin ?? 0) * 60);
  // Where the slot ends its own figure stands.
  const ticks = axisMinutes(axisS / 60).filter(
    (minute) => slotMin === null || Math.abs(minute - slotMin) * 60 > axisS / 20,
  );
  const wrongIn = (i: number): boolean =>
    Object.entries(messages).some(
      ([path, message]) => message && path.startsWith(`drillSets[${i}]`),
    );
  return (
    <>
      <div className="set-row set-head small-text quiet" aria-hidden>
        <span />
        <span>what, and how it varies</span>
        <span>until</span>
        <span>who</span>
        <span className="set-axis">
          {ticks.map((minute) => (
            <span key={minute} className="tick" style={{ left: `${(6000 * minute) / axisS}%` }}>
              {minute}
            </span>
          ))}
          {slotMin !== null && (
            <span className="tick slot-tick" style={{ left: `${(6000 * slotMin) / axisS}%` }}>
              {slotMin}
            </span>
          )}
        </span>
      </div>
      {sets.length === 0 ? (
        <Empty title="Nothing is in it yet. Say what is done first: it opens to be changed." />
      ) : (
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <SortableContext items={sets.map((set) => set.id)} strategy={verticalListSortingStrategy}>
            <ul className="set-lines" aria-label="Drill sets">
              {sets.map((set, i) => (
                <SetLine
                  key={set.id}
                  set={set}
                  index={i}
                  figures={figures.sets[i]!}
                  pacer={bodies.get(set.athleteIds[0] ?? '') ?? [...bodies.values()][0]}
                  athletes={athletes}
                  date={date}
                  axisS={axisS}
                  slotS={slotMin === null ? null : slotMin * 60}
                  open={opened === set.id}
                  wrong={wrongIn(i)}
                  mayPlan={mayPlan}
                  onOpen={() => onOpen(opened === set.id ? null : set.id)}
                  onMend={(mend) => {
                    setSet(i, mend.set);
                    tell(`${mend.what}.`, () => onSets([...sets]));
                  }}
                  onRest={(ids) =>
                    setSet(i, { athleteIds: set.athleteIds.filter((id) => !ids.includes(id)) })
                  }
                >
                  <SetForm
                    set={set}
                    index={i}
                    figures={figures.sets[i]!}
                    date={date}
                    plans={plans}
                    athletes={athletes}
                    makesOf={makesOf}
                    lanes={lanes}
                    inGroups={inGroups}
                    last={i === sets.length - 1}
                    style={style}
                    messages={messages}
                    onSet={(change) => setSet(i, change)}
                    onAll={opened === set.id ? onAll(i) : null}
                    onMove={(by) => move(i, i + by)}
                    onTakeOut={() => takeOut(i)}
                  />
                </SetLine>
              ))}
            </ul>
          </SortableContext>
        </DndContext>
      )}
    </>
  );
};
