import { countSteps } from '@gravek/core/layout/shape';
import { checkRules } from '@gravek/core/runup/stepRules';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import { drillOf, phaseOf } from '@gravek/library/movement/byCode';
import { isChain } from '@gravek/library/movement/chains';
import { sideOf } from '@gravek/library/movement/sideOf';
import { sideWord } from '@gravek/library/movement/sides';
import { branchesOf, phasesOn } from '@gravek/library/planning/branches';
import type { OtherWay } from '@gravek/library/planning/otherWays';
import { laidOut, taughtTo } from '@gravek/library/planning/plan';
import { sequenceStart } from '@gravek/library/planning/planStart';
import { stepsIn } from '@gravek/library/planning/stepWords';
import { useCallback, useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useAthletes } from '../api/queries';
import { Fold, useNarrow } from '../controls/Fold';
import { Empty, Loaded, Waiting } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { Beats } from '../drawing/Beats';
import { PlanView } from '../drawing/PlanView';
import { SideView } from '../drawing/SideView';
import { beatsOfLayout, phaseAt, phaseSpans } from '../hearing/beats';
import { PlayControls } from '../hearing/PlayControls';
import { usePlayer } from '../hearing/player';
import { useChosenGround } from '../member/chosenGround';
import { useLengthStyle, useMayPlan } from '../member/member';
import { documentOf, useDocumentsHere } from '../parts/catalogue/documents';
import { useCatalogue, useRuleSets } from '../parts/catalogue/useCatalogue';
import { bodyFor, estimatedNote } from '../parts/catalogue/usual';
import { GroundChoice } from '../parts/movement/GroundChoice';
import { useLaidOver } from '../parts/movement/LaidOver';
import { PartChoice } from '../parts/movement/PartChoice';
import { Phases } from '../parts/movement/Phases';
import { ReadChoices } from '../parts/movement/ReadChoices';
import { RuleCheck } from '../parts/movement/RuleCheck';
import { SetOut } from '../parts/movement/SetOut';
import { SpotChoice } from '../parts/movement/SpotChoice';
import { ThreeLooks } from '../parts/movement/ThreeLooks';
import { chainPlace } from './chainPlace';
import { Drills } from './Drills';
import { ForWhom } from './ForWhom';
import { Acts, UpdateOffer } from './MovementActs';
import { NotFor, WhatGoesWrong } from './MovementMinds';
import { Schools } from './Schools';

const Shown = ({
  movement: written,
  clubMovement,
  athletes,
}: {
  movement: Movement;
  clubMovement: ClubMovement | undefined;
  athletes: Athlete[];
}) => {
  const style = useLengthStyle();
  const narrow = useNarrow();
  const mayPlan = useMayPlan();
  const [query] = useSearchParams();
  const [athleteId, setAthleteId] = useState('');
  const [side, setSide] = useState<'own' | 'other'>('own');
  const [chosen, setChosen] = useState<
    Pick<SequenceChoices, 'reads' | 'schools' | 'drill' | 'spot'>
  >({
    ...sequenceStart(),
    drill: drillOf(written, query.get('drill') ?? '')?.code ?? null,
  });
  const athlete = athletes.find((athlete) => athlete.id === athleteId);
  const body = useMemo(() => bodyFor(athlete), [athlete]);
  const { schools, drill, spot } = chosen;
  const movement = useMemo(
    () => taughtTo(written, { schools, spot }, body, side),
    [written, schools, spot, body, side],
  );
  // A drill may have steps of its own.
  const drawn = useMemo(
    () => taughtTo(written, { drill, schools, spot }, body, side),
    [written, drill, schools, spot, body, side],
  );
  const [phase, setPhase] = useState<string | null>(query.get('phase'));
  const ruleSets = useRuleSets();
  const { chosen: ground } = useChosenGround();
  const layout = useMemo(
    () => laidOut(written, body, { ...chosen, side, ground }),
    [written, body, chosen, side, ground],
  );
  const branches = useMemo(
    () => branchesOf(movement, body, { ...chosen, side, ground }),
    [movement, body, chosen, side, ground],
  );
  const lay = useCallback(
    (other: OtherWay) => laidOut(written, body, { ...chosen, ...other, side, ground }),
    [written, body, chosen, side, ground],
  );
  const { over, choice: overChoice } = useLaidOver(movement, chosen, lay);
  const beats = useMemo(() => beatsOfLayout(layout), [layout]);
  const player = usePlayer(beats, layout.totalTimeS);
  const seen = useMemo(() => sideOf(drawn, layout, body), [drawn, layout, body]);
  const phases = phasesOn(drawn, { reads: chosen.reads });
  const broken = movement.ruleSets.flatMap((code) => {
    const set = ruleSets.find((set) => set.id === code);
    return set ? [{ set, breaks: checkRules(layout.footfalls, set) }] : [];
  });
  const note = estimatedNote(athlete, body.estimated);
  return (
    <>
      <PageHead title={movement.name} over={movement.usedBy.join(', ')}>
        {isChain(written.code) ? (
          <Link className="btn btn-outline-dark" to={chainPlace(written.code)}>
            Change its parts
          </Link>
        ) : (
          <Acts movement={written} clubMovement={clubMovement} />
        )}
        {mayPlan && !clubMovement?.archived && (
          <Link
            className="btn btn-primary"
            to={`/approaches/new?movement=${movement.code}${athleteId ? `&athlete=${athleteId}` : ''}`}
            state={{
              reads: chosen.reads,
              schools: chosen.schools,
              drill: chosen.drill,
              spot: chosen.spot,
            }}
          >
            Plan it
          </Link>
        )}
      </PageHead>
      <div className="stack">
        {clubMovement && <UpdateOffer clubMovement={clubMovement} />}
        {!narrow && <p className="mb-0 lead-line">{movement.summary}</p>}
        <section className="strip-panel" aria-label="The plan">
          <Fold title="For whom, which way, which part">
            <div className="plan-choices no-print">
              <ForWhom
                movement={written}
                body={body}
                athletes={athletes}
                athleteId={athleteId}
                side={side}
                onAthlete={setAthleteId}
                onSide={setSide}
              />
              <ReadChoices
                movement={movement}
                chosen={chosen}
                onChoose={(change) => setChosen({ ...chosen, ...change })}
              />
              <PartChoice
                movement={movement}
                drill={chosen.drill}
                onChoose={(drill) => setChosen({ ...chosen, drill })}
              />
              <SpotChoice
                movement={drawn}
                ground={ground}
                spot={chosen.spot}
                onSpot={(spot) => setChosen({ ...chosen, spot })}
              />
              <GroundChoice ground={ground} />
              {chosen.drill === null && overChoice}
            </div>
          </Fold>
          <PlanView
            branches={branches}
            over={chosen.drill === null ? over : null}
            layout={layout}
            player={player}
            shoeM={body.shoeM}
            phase={phase}
            phases={drawn.phases}
            label={`${movement.name} from above: ${stepsIn(countSteps(layout), layout.totalTimeS)}${layout.mirrored ? ', mirrored' : ''}`}
          />
          <Beats
            contacts={beats}
            totalTimeS={layout.totalTimeS}
            phases={phaseSpans(layout, drawn.phases)}
            player={player}
          />
          <div className="row-line">
            <PlayControls
              player={player}
              name={movement.name}
              nameAt={phaseAt(layout, drawn.phases)}
            />
            <span className="quiet small-text ms-auto">
              {stepsIn(countSteps(layout), layout.totalTimeS)}
              {layout.mirrored && `, drawn for the ${sideWord(written, body, side)}`}
            </span>
          </div>
          {note && <div className="quiet small-text mt-1">{note}</div>}
        </section>
        <div className="print-only">
          <SetOut layout={layout} style={style} />
          <ThreeLooks movement={drawn} path={phases} />
        </div>
        {seen && (
          <Fold title="From the side">
            <div className="panel no-print">
              <SideView
                view={seen}
                layout={layout}
                body={body}
                player={player}
                nameOf={(code) => phaseOf(drawn, code)?.name ?? ''}
              />
            </div>
          </Fold>
        )}
        <div className="columns no-print">
          <Fold title="Look at">
            <Phases movement={drawn} path={phases} chosen={phase} onChoose={setPhase} />
          </Fold>
          <div className="stack">
            <section className="panel" aria-label="Mind">
              <h2>Mind</h2>
              <ul className="plain-points">
                {movement.cautions.map((caution) => (
                  <li key={caution}>{caution}</li>
                ))}
              </ul>
              <p className="quiet small-text mb-0">
                Follow your governing body’s rules and qualified medical advice.
              </p>
            </section>
            <NotFor movement={written} drill={chosen.drill} athletes={athletes} />
            <RuleCheck checked={broken} />
          </div>
        </div>
        <Fold title="What goes wrong">
          <section className="panel no-print" aria-label="What goes wrong">
            <h2>What goes wrong, and what it brings about</h2>
            <WhatGoesWrong movement={movement} />
          </section>
        </Fold>
        <div className="no-print stack">
          <Fold title="Drills">
            <Drills
              movement={movement}
              athletes={athlete ? [athlete] : athletes.filter((athlete) => !athlete.archived)}
              shown={chosen.drill}
              onShow={(drill) => {
                setChosen({ ...chosen, drill });
                document.getElementById('main')?.scrollIntoView({ block: 'start' });
              }}
            />
          </Fold>
          <Fold title="Schools">
            <Schools
              movement={movement}
              body={body}
              chosen={chosen}
              athletes={athlete ? [athlete] : athletes.filter((athlete) => !athlete.archived)}
            />
          </Fold>
        </div>
      </div>
    </>
  );
};

export const MovementPage = () => {
  const { code = '' } = useParams();
  const catalogue = useCatalogue();
  const athletes = useAthletes();
  const here = useDocumentsHere([code]);
  if (!catalogue.ready || !here) return <Waiting what="Getting the movement …" />;
  const clubMovement = catalogue.clubMovements.find((movement) => movement.id === code);
  const movement = clubMovement?.movement ?? documentOf(code, []);
  if (!movement) {
    return (
      <Empty title="This movement is not there any more.">
        <Link className="btn btn-primary" to="/movements">
          All movements
        </Link>
      </Empty>
    );
  }
  return (
    <Loaded query={athletes} what="Getting the athletes …">
      {(people) => (
        <Shown key={code} movement={movement} clubMovement={clubMovement} athletes={people} />
      )}
    </Loaded>
  );
};
