import { MOVEMENTS } from '@gravek/library';
import { Link, useParams, useSearchParams } from 'react-router';
import { useApproaches, useAthletes } from '../api/queries';
import { Empty, Loaded, Waiting } from '../controls/Notice';
import { useCatalogue } from '../movements/useCatalogue';
import { stripStart } from './draft';
import { SequencePlanner } from './SequencePlanner';
import { StripPlanner } from './StripPlanner';

/** The planner that fits the movement: the strip for a run-up to a target, the plan view for the rest. */
export const Planner = () => {
  const { id = 'new' } = useParams();
  const [query] = useSearchParams();
  const athletes = useAthletes();
  const approaches = useApproaches();
  const catalogue = useCatalogue();
  if (!catalogue.ready) return <Waiting what="Getting the movements …" />;
  return (
    <Loaded query={athletes} what="Getting the athletes …">
      {(people) => (
        <Loaded query={approaches} what="Getting the approaches …">
          {(list) => {
            const saved = list.find((one) => one.id === id) ?? null;
            if (people.every((one) => one.archived)) {
              return (
                <Empty title="A plan needs an athlete.">
                  <Link className="btn btn-primary" to="/athletes">
                    Add an athlete
                  </Link>
                </Empty>
              );
            }
            const code = saved?.movement ?? query.get('movement') ?? MOVEMENTS[0]!.code;
            const movement = [...MOVEMENTS, ...catalogue.documents].find(
              (one) => one.code === code,
            );
            if ((id !== 'new' && !saved) || !movement) {
              return (
                <Empty
                  title={
                    movement
                      ? 'This approach is not there any more.'
                      : 'This movement is not there any more.'
                  }
                >
                  <Link className="btn btn-primary" to="/approaches">
                    All approaches
                  </Link>
                </Empty>
              );
            }
            const wanted = query.get('athlete');
            const first =
              people.find((one) => one.id === wanted) ??
              people.find((one) => saved?.athleteIds.includes(one.id)) ??
              people.find((one) => !one.archived);
            const key = `${id}/${code}/${wanted ?? ''}`;
            const start = stripStart(movement, saved);
            const common = { movement, saved, athletes: people, first };
            return start ? (
              <StripPlanner key={key} {...common} start={start} />
            ) : (
              <SequencePlanner key={key} {...common} />
            );
          }}
        </Loaded>
      )}
    </Loaded>
  );
};
