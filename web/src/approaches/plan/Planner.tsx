import { BUILT_IN } from '@gravek/library/movement/builtIn';
import { Link, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { useApproach, useAthletes } from '../../api/queries';
import { Empty, Loaded, Waiting } from '../../controls/Notice';
import { useStable } from '../../controls/useStable';
import { useChosenGround } from '../../member/chosenGround';
import { documentOf, useDocumentsHere } from '../../parts/catalogue/documents';
import { useCatalogue } from '../../parts/catalogue/useCatalogue';
import type { Asked } from './draft';
import { PlanPage } from './PlanPage';

/** A plan that is saved, or a new one of the movement that the address names. */
export const Planner = () => {
  const { id = 'new' } = useParams();
  const [query] = useSearchParams();
  const { state } = useLocation();
  const navigate = useNavigate();
  const onTaken = useStable(() => {
    const rest = new URLSearchParams(query);
    rest.delete('athlete');
    void navigate({ search: rest.toString() }, { replace: true, state: null });
  });
  const athletes = useAthletes();
  const approach = useApproach(id === 'new' ? undefined : id);
  const catalogue = useCatalogue();
  const newCode = query.get('movement') ?? BUILT_IN[0]!.code;
  const { ready, chosen } = useChosenGround();
  const wanted = id === 'new' ? newCode : approach.data?.movement;
  const here = useDocumentsHere(wanted === undefined ? [] : [wanted]);
  if (!catalogue.ready || !ready || !here) return <Waiting what="Getting the movements …" />;
  const saved = id === 'new' ? { data: null, error: null, refetch: () => undefined } : approach;
  return (
    <Loaded query={athletes} what="Getting the athletes …">
      {(people) => (
        <Loaded query={saved} what="Getting the approach …">
          {(plan) => {
            if (people.every((person) => person.archived)) {
              return (
                <Empty title="A plan needs an athlete.">
                  <Link className="btn btn-primary" to="/athletes">
                    Add an athlete
                  </Link>
                </Empty>
              );
            }
            const code = plan?.movement ?? newCode;
            const movement = documentOf(code, catalogue.documents);
            if ((id !== 'new' && !plan) || !movement) {
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
            const fromAddress: Asked | null =
              state || wanted
                ? { ...(state as Asked | null), athleteId: wanted ?? undefined }
                : null;
            const first =
              people.find((person) => person.id === wanted) ??
              people.find((person) => plan?.athleteIds.includes(person.id)) ??
              people.find((person) => !person.archived) ??
              people[0]!;
            return (
              <PlanPage
                key={`${id}/${code}`}
                movement={movement}
                saved={plan}
                athletes={people}
                first={first}
                ground={chosen}
                fromAddress={fromAddress}
                onTaken={onTaken}
              />
            );
          }}
        </Loaded>
      )}
    </Loaded>
  );
};
