import type { Athlete } from '@gravek/contract/athlete';
import type { LoadKind } from '@gravek/core/session/repLog';
import type { SessionFigures } from '@gravek/library/session/sessionFigures';
import type { MostOf } from '@gravek/library/session/sessionLoad';
import type { SpentTime } from '@gravek/library/session/spentTime';
import { counted } from '@gravek/core/words';
import { Figure, Labelled } from '../../controls/Figure';

export const LOAD_NAMES: Record<LoadKind, string> = {
  contacts: 'Contacts',
  jumps: 'Jumps',
  throws: 'Throws',
  sprintM: 'Sprint',
};

const LEVELS = { usual: 'usual', more: 'more than', 'much-more': 'much more than' } as const;

/** Beside what a week's load stands: the club's limit, or what is usual. */
const beside = ({ kind, limit, check, over }: MostOf): string => {
  const unit = kind === 'sprintM' ? ' m' : '';
  if (limit !== null) return `${over ? 'over' : 'of'} ${limit}${unit}`;
  if (check.usual === null || check.level === 'no-history') return unit.trim();
  return `${LEVELS[check.level]} ${Math.round(check.usual)}${unit}`;
};

/** What an athlete does with the minutes, the most first. */
const spentWords = ({ workS, helpS, walkBackS, restS, standS }: SpentTime): string =>
  [
    { what: 'works', seconds: workS },
    { what: 'helps', seconds: helpS },
    { what: 'walks back', seconds: walkBackS },
    { what: 'rests', seconds: restS },
    { what: 'stands', seconds: standS },
  ]
    .filter(({ seconds }) => seconds >= 30)
    .sort((a, b) => b.seconds - a.seconds)
    .map(({ what, seconds }) => `${what} ${Math.round(seconds / 60)} min`)
    .join(', ');

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
    athletes.find((athlete) => athlete.id === id)?.name.split(' ')[0] ?? '';
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
      {figures.spent !== null && figures.totalS > 0 && (
        <Labelled label="Each stands still">
          <Figure
            parts={[
              {
                figure: String(Math.round((100 * figures.spent.standS) / figures.totalS)),
                unit: '%',
              },
            ]}
            big
          />
        </Labelled>
      )}
      <Labelled label={counted(figures.people, 'athlete')}>
        <Figure parts={[{ figure: String(figures.reps), unit: 'reps' }]} big />
      </Labelled>
      {most === null &&
        figures.loadKinds.map((kind) => (
          // As high as what comes in its place: nothing below it moves.
          <div key={kind} className="load">
            <Labelled label={`${LOAD_NAMES[kind]}, week`}>
              <span className="figure quiet">…</span>
            </Labelled>
          </div>
        ))}
      {most?.map((load) => (
        <div
          key={load.kind}
          className={load.over || load.check.level === 'much-more' ? 'load load-over' : 'load'}
        >
          <Labelled label={`${LOAD_NAMES[load.kind]}, week: ${firstName(load.athleteId)}`}>
            <Figure parts={[{ figure: String(Math.round(load.week)), unit: beside(load) }]} />
          </Labelled>
        </div>
      ))}
      {figures.bring.length > 0 && (
        <div className="bring">
          <Labelled label="Bring">
            <strong>{figures.bring.join(', ')}</strong>
          </Labelled>
        </div>
      )}
      {figures.spent !== null && (
        <div className="spent quiet small-text">Each {spentWords(figures.spent)}.</div>
      )}
    </div>
  );
};
