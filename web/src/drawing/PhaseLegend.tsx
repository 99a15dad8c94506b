import type { Layout } from '@gravek/core/layout/shape';
import { useTime, type Player } from '../hearing/player';

/** A phase by its code, with the name that a coach reads. */
export type NamedPhase = { code: string; name: string };

type Entry = { code: string; name: string; steps: string; fromS: number };

/** The numbers of the steps of a phase, as they stand on the prints. */
const stepsOf = ({ footfalls }: Layout, code: string): string => {
  const numbers = footfalls.filter(({ n, phase }) => n > 0 && phase === code).map(({ n }) => n);
  if (numbers.length === 0) return '';
  const [first, last] = [Math.min(...numbers), Math.max(...numbers)];
  return first === last ? `${first}` : `${first}–${last}`;
};

const entriesOf = (layout: Layout, phases: readonly NamedPhase[]): Entry[] =>
  layout.phases.flatMap(({ code, fromS }) => {
    const name = phases.find((phase) => phase.code === code)?.name;
    return name ? [{ code, name, steps: stepsOf(layout, code), fromS }] : [];
  });

const Line = ({
  entry: { code, name, steps },
  isNow,
  onPoint,
}: {
  entry: Entry;
  isNow: boolean;
  onPoint: (code: string | null) => void;
}) => (
  <li
    className={isNow ? 'now' : undefined}
    onPointerEnter={() => onPoint(code)}
    onPointerLeave={() => onPoint(null)}
  >
    {steps && <span className="figure">{steps}</span>} {name}
  </li>
);

const Playing = ({
  entries,
  layout,
  player,
  onPoint,
}: {
  entries: readonly Entry[];
  layout: Layout;
  player: Player;
  onPoint: (code: string | null) => void;
}) => {
  const timeS = useTime(player);
  const now =
    timeS > 0 && timeS < layout.totalTimeS
      ? entries.findLast(({ fromS }) => fromS <= timeS + 1e-9)
      : undefined;
  return entries.map((entry) => (
    <Line key={entry.code} entry={entry} isNow={entry === now} onPoint={onPoint} />
  ));
};

/** What the numbers on the prints belong to, in order: lit up as it is played, and inked where it is pointed at. */
export const PhaseLegend = ({
  layout,
  phases,
  player,
  onPoint,
}: {
  layout: Layout;
  phases: readonly NamedPhase[];
  player: Player | undefined;
  onPoint: (code: string | null) => void;
}) => {
  const entries = entriesOf(layout, phases);
  return (
    <ol className="plan-legend" aria-label="Steps by phase">
      {player ? (
        <Playing entries={entries} layout={layout} player={player} onPoint={onPoint} />
      ) : (
        entries.map((entry) => (
          <Line key={entry.code} entry={entry} isNow={false} onPoint={onPoint} />
        ))
      )}
    </ol>
  );
};
