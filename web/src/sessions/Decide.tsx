import type { Athlete } from '@gravek/contract';
import type { LoadKind, MostOf, SessionFigures } from '@gravek/library';
import { Figure, Labelled } from '../controls/Figure';

const LOAD_NAMES: Record<LoadKind, string> = {
  contacts: 'contacts',
  jumps: 'jumps',
  throws: 'throws',
  sprintM: 'sprint',
};

/** Beside what a week's load stands: the club's limit, or what is usual. */
const beside = ({ kind, week, here, limit, check, over }: MostOf): string => {
  const unit = kind === 'sprintM' ? ' m' : '';
  const inWeek = week > here ? `, ${Math.round(week)}${unit} in the week` : '';
  if (limit !== null) return `${over ? 'over' : 'of'} ${limit}${unit} a week${inWeek}`;
  if (check.usual === null) return `${unit.trim()}${inWeek}`;
  const level = check.level === 'usual' ? '' : check.level === 'more' ? ', more' : ', much more';
  return `usual ${Math.round(check.usual)}${unit} a week${level}`;
};

/** What decides about a session: does it fit, who stands, who has most, what to bring. */
export const Decide = ({
  figures,
  slotMin,
  lanes,
  most,
  athletes,
}: {
  figures: SessionFigures;
  slotMin: number | null;
  lanes: number;
  /** null while it is reckoned */
  most: MostOf[] | null;
  athletes: readonly Athlete[];
}) => {
  const firstName = (id: string): string =>
    athletes.find((one) => one.id === id)?.name.split(' ')[0] ?? '';
  return (
    <div className={figures.overS > 0 ? 'figures-row decide decide-over' : 'figures-row decide'}>
      <Labelled label={lanes > 1 ? `Takes, in ${lanes} lanes` : 'Takes'}>
        <Figure
          parts={[
            {
              figure: String(Math.round(figures.totalS / 60)),
              unit: slotMin === null ? 'min' : `of ${slotMin} min`,
            },
          ]}
          big
        />
      </Labelled>
      {figures.idleFraction !== null && (
        <Labelled label="Each stands still">
          <Figure
            parts={[{ figure: String(Math.round(100 * figures.idleFraction)), unit: '%' }]}
            big
          />
        </Labelled>
      )}
      <Labelled label="Athletes, reps">
        <Figure
          parts={[
            { figure: String(figures.people), unit: '' },
            { figure: String(figures.reps), unit: 'reps' },
          ]}
          big
        />
      </Labelled>
      {most === null && figures.people > 0 && (
        <Labelled label="Loads">
          <span className="quiet">reckoning …</span>
        </Labelled>
      )}
      {most?.map((one) => (
        <div key={one.kind} className={one.over ? 'load-over' : undefined}>
          <Labelled label={`Most ${LOAD_NAMES[one.kind]}: ${firstName(one.athleteId)}`}>
            <Figure parts={[{ figure: String(Math.round(one.here)), unit: beside(one) }]} big />
          </Labelled>
        </div>
      ))}
      {figures.bring.length > 0 && (
        <Labelled label="Bring">
          <strong>{figures.bring.join(', ')}</strong>
        </Labelled>
      )}
    </div>
  );
};
