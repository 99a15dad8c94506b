import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import { variantFrom } from '@gravek/core/session/variants';
import type { Athlete } from '@gravek/contract/athlete';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Mend } from '@gravek/library/session/mend';
import { barredBy } from '@gravek/library/session/restrictions';
import type { SetFigures } from '@gravek/library/session/sessionFigures';
import { changedParts } from '@gravek/library/session/setOfWork';
import { targetWords, variesWords } from '@gravek/library/session/setWords';
import { demandOfSet, variedRun } from '@gravek/library/session/work';
import { GripVertical } from 'lucide-react';
import { useMemo } from 'react';
import { minutes } from '../controls/dates';
import { RESTRICTION_NAMES } from '../controls/restrictionNames';
import { PlanThumb } from '../drawing/PlanThumb';
import { STAND_NAMES } from '../parts/intoSession/setNames';

/** Minutes at which the time axis has a line, so that there are at most six. */
export const axisMinutes = (totalMin: number): number[] => {
  const step = [2, 5, 10, 15, 20, 30, 60].find((value) => totalMin / value <= 6) ?? 120;
  return Array.from({ length: Math.floor(totalMin / step) + 1 }, (_, i) => i * step);
};

const howWords = (set: DrillSet, { time, repsThatFit }: SetFigures): string => {
  if (!time) return '';
  if (set.target === 'makes' && set.athleteIds.length > 0) {
    return `about ${Math.round(time.reps / set.athleteIds.length)} tries each`;
  }
  if (repsThatFit !== null)
    return repsThatFit < set.reps ? `time for ${repsThatFit} of ${set.reps} each time` : '';
  if (set.stand === 'turns') return time.performing > 1 ? `${time.performing} lanes` : 'one lane';
  return STAND_NAMES[set.stand];
};

/** Until when, and in which rounds: each only where it is not as its drill asks. */
const untilWords = (set: DrillSet, changed: { target: boolean; rounds: boolean }): string[] => {
  const rounds = [
    set.sets > 1 ? `${set.sets} rounds` : 'one round',
    ...(set.redo ? ['again without the finish'] : []),
    ...(set.freeze ? ['freeze'] : []),
  ].join(', ');
  return [...(changed.target ? [targetWords(set)] : []), ...(changed.rounds ? [rounds] : [])];
};

const layoutOf = ({ base }: SetFigures, body: Body | undefined): Layout | null => {
  if (!base?.movement || !base.choices || !body) return null;
  return variedRun(base, variantFrom('', 'own'), body).layout;
};

type Props = {
  set: DrillSet;
  index: number;
  figures: SetFigures;
  pacer: Body | undefined;
  athletes: readonly Athlete[];
  date: string;
  /** of the time axis */
  axisS: number;
  slotS: number | null;
  open: boolean;
  wrong: boolean;
  mayPlan: boolean;
  onOpen: () => void;
  onMend: (mend: Mend) => void;
  onRest: (athleteIds: string[]) => void;
  children: React.ReactNode;
};

/** One line of a session: what and how it varies, until when, who, and when on the time axis. */
export const SetLine = ({
  set,
  index,
  figures,
  pacer,
  athletes,
  date,
  axisS,
  slotS,
  open,
  wrong,
  mayPlan,
  onOpen,
  onMend,
  onRest,
  children,
}: Props) => {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } =
    useSortable({ id: set.id, disabled: !mayPlan });
  const { base, at, overS, twice, apart } = figures;
  const layout = useMemo(() => layoutOf(figures, pacer), [figures, pacer]);
  const firstName = (id: string): string =>
    athletes.find((athlete) => athlete.id === id)?.name.split(' ')[0] ?? '?';
  const loads = base ? demandOfSet(base, set) : [];
  const notAllowed = set.athleteIds.flatMap((id) => {
    const other = athletes.find((athlete) => athlete.id === id);
    const barred = other && barredBy(loads, other.restrictions, date);
    return barred ? [`${firstName(id)}: ${RESTRICTION_NAMES[barred.kind]}`] : [];
  });
  const who =
    set.athleteIds.length === 0
      ? 'nobody yet'
      : set.athleteIds.length <= 3
        ? set.athleteIds.map(firstName).join(', ')
        : `${set.athleteIds.length} athletes`;
  // A drill says by itself how it is run: only what is otherwise here is told.
  const changed = changedParts(set, base?.movement ?? undefined);
  const stands = [
    ...(changed.stands
      ? [
          set.stand === 'roles' && set.helpers.length > 0
            ? ['perform', ...set.helpers].join(', ')
            : STAND_NAMES[set.stand],
          ...(set.apartPaces ? [`${set.apartPaces} paces apart`] : []),
        ]
      : []),
    ...(figures.repsThatFit === null ? [] : [set.coach ? `station of ${set.coach}` : 'station']),
  ].join(', ');
  const name = base?.name ?? 'Not there any more';
  const varies = base && changed.varies ? variesWords(base, set) : '';
  const until = changed.target || changed.rounds ? untilWords(set, changed) : ['as the drill asks'];
  const left = (100 * at.startS) / axisS;
  const width = Math.max(1.2, (100 * (at.endS - at.startS)) / axisS);
  // With room neither behind the bar nor before it, it stands in it.
  const isInBar = left + width > 62 && left < 38;
  return (
    <li
      ref={setNodeRef}
      className={`set-line ${open ? 'open' : ''} ${set.beside ? 'beside' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <div className="set-row">
        <div className="set-thumb">
          {mayPlan && (
            <button
              ref={setActivatorNodeRef}
              type="button"
              className="grip"
              aria-label={`Move ${name}`}
              {...attributes}
              {...listeners}
            >
              <GripVertical size={16} aria-hidden />
            </button>
          )}
          {layout && <PlanThumb layout={layout} />}
        </div>
        <div className="set-what">
          <button type="button" className="set-name" aria-expanded={open} onClick={onOpen}>
            {name}
          </button>
          {varies && <div className="quiet small-text">{varies}</div>}
          {set.call && changed.call && <div className="quiet small-text">called</div>}
          {overS > 0 && (
            <div className="set-over small-text">
              {minutes(overS)} too long
              {figures.mends.length > 0 && ': '}
              {figures.mends.map((mend, i) => (
                <span key={mend.what}>
                  {i > 0 && ' · '}
                  <button type="button" onClick={() => onMend(mend)}>
                    {mend.what} −{Math.max(1, Math.round(mend.savesS / 60))}
                  </button>
                </span>
              ))}
            </div>
          )}
          {apart.length > 0 && (
            <div className="set-over small-text">
              {apart.length === 1 ? 'One combination' : `${apart.length} combinations`} cannot be
              joined; strike {apart.length === 1 ? 'it' : 'them'} out.
            </div>
          )}
          {wrong && <div className="set-over small-text">Something in it has to be mended.</div>}
        </div>
        <div className="set-until">
          <div className={changed.target ? undefined : 'quiet small-text'}>{until[0]}</div>
          {until[1] && <div className="quiet small-text">{until[1]}</div>}
        </div>
        <div className="set-who">
          <div className="text-truncate">{who}</div>
          {stands && <div className="quiet small-text">{stands}</div>}
          {twice.length > 0 && (
            <div className="set-over small-text">
              {twice.map(firstName).join(', ')}: in two sets at once{' '}
              <button type="button" onClick={() => onRest(twice)}>
                take out here
              </button>
            </div>
          )}
          {notAllowed.length > 0 && <div className="quiet small-text">{notAllowed.join('; ')}</div>}
        </div>
        <div
          className="set-axis"
          aria-label={`From minute ${Math.round(at.startS / 60)} to ${Math.round(at.endS / 60)}`}
          role="img"
        >
          {slotS !== null && (
            <span className="slot-end" style={{ left: `${(100 * slotS) / axisS}%` }} />
          )}
          <span
            className={overS > 0 ? 'set-bar over' : 'set-bar'}
            style={{ left: `${left}%`, width: `${Math.min(width, 100 - left)}%` }}
          />
          <span
            className={`set-how small-text ${isInBar ? 'set-how-in' : ''}`}
            style={
              isInBar
                ? { left: `${left + 1}%` }
                : left + width > 62
                  ? { right: `${100 - left + 1}%` }
                  : { left: `${left + width + 1}%` }
            }
          >
            {figures.repsThatFit === null
              ? minutes(at.endS - at.startS)
              : `${minutes(figures.time?.totalS ?? 0)} a group`}
            {howWords(set, figures) && `, ${howWords(set, figures)}`}
          </span>
        </div>
      </div>
      {open && children}
      <span className="visually-hidden">Drill set {index + 1}</span>
    </li>
  );
};
