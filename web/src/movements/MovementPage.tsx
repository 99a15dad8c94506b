import { checkRules } from '@gravek/core/runup/stepRules';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import { isChain } from '@gravek/library/movement/chains';
import { drillOf, faultOf, phaseOf } from '@gravek/library/movement/byCode';
import type { OtherWay } from '@gravek/library/planning/otherWays';
import {
  branchesOf,
  laidOut,
  phasesOn,
  sequenceStart,
  taughtTo,
} from '@gravek/library/planning/plan';
import { barredBy, demandOf, whyBarred } from '@gravek/library/session/restrictions';
import { sideOf } from '@gravek/library/movement/sideOf';
import { sideWord } from '@gravek/library/movement/sides';
import { countSteps } from '@gravek/core/layout/shape';
import { stepsIn } from '@gravek/library/planning/stepWords';
import { useCallback, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, onPress, sentenceOf } from '../api/client';
import { useAthletes, useWrite } from '../api/queries';
import { usePutAway } from '../controls/usePutAway';
import { useLengthStyle, useMayPlan, useMember } from '../member/member';
import { useChosenGround } from '../member/chosenGround';
import { Fold, useNarrow } from '../controls/Fold';
import { PageHead } from '../controls/PageHead';
import { Empty, Loaded, Waiting } from '../controls/Notice';
import { download, fileName } from '../controls/download';
import { tell } from '../controls/toasts';
import { CauseChart } from '../drawing/CauseChart';
import { Beats } from '../drawing/Beats';
import { PlanView } from '../drawing/PlanView';
import { SideView } from '../drawing/SideView';
import { beatsOfLayout, phaseAt, phaseSpans } from '../hearing/beats';
import { PlayControls } from '../hearing/PlayControls';
import { usePlayer } from '../hearing/player';
import { chainPlace } from './chainPlace';
import { Drills } from './Drills';
import { ForWhom } from './ForWhom';
import { useLaidOver } from '../parts/movement/LaidOver';
import { PartChoice } from '../parts/movement/PartChoice';
import { Phases } from '../parts/movement/Phases';
import { GroundChoice } from '../parts/movement/GroundChoice';
import { ReadChoices } from '../parts/movement/ReadChoices';
import { RuleCheck } from '../parts/movement/RuleCheck';
import { Schools } from './Schools';
import { SetOut } from '../parts/movement/SetOut';
import { SpotChoice } from '../parts/movement/SpotChoice';
import { ThreeLooks } from '../parts/movement/ThreeLooks';
import { documentOf, useDocumentsHere } from '../parts/catalogue/documents';
import { useCatalogue, useRuleSets } from '../parts/catalogue/useCatalogue';
import { useAddMovement } from '../parts/catalogue/useOwnMovement';
import { bodyFor, estimatedNote } from '../parts/catalogue/usual';

/** A built-in movement has changed since it was copied: offered, never forced. */
const UpdateOffer = ({ own }: { own: ClubMovement }) => {
  const builtIn = own.basedOn && documentOf(own.basedOn.code, []);
  const write = useWrite(
    (body: object) => api.put<ClubMovement>(`/movements/${own.id}`, body),
    'movements',
  );
  if (!builtIn || !own.basedOn || builtIn.revision <= own.basedOn.revision) return null;
  const basedOn = { code: builtIn.code, revision: builtIn.revision };
  const settle = async (movement: Movement, said: string): Promise<void> => {
    try {
      const before = own.movement;
      const stored = await write.mutateAsync({ basedOn, movement, version: own.version });
      tell(said, () => {
        void write
          .mutateAsync({ basedOn: own.basedOn, movement: before, version: stored.version })
          .catch((error: unknown) => tell(sentenceOf(error)));
      });
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return (
    <div className="note" role="status">
      The built-in <Link to={`/movements/${builtIn.code}`}>{builtIn.name}</Link> has changed since
      this copy was made.{' '}
      <Button
        size="sm"
        variant="outline-dark"
        disabled={write.isPending}
        onClick={() =>
          void settle(
            { ...builtIn, code: own.id, name: own.movement.name },
            'The built-in content is taken over.',
          )
        }
      >
        Take it over
      </Button>{' '}
      <Button
        size="sm"
        variant="outline-dark"
        disabled={write.isPending}
        onClick={() => void settle(own.movement, 'Yours stays as it is.')}
      >
        Keep ours
      </Button>
    </div>
  );
};

const Acts = ({ movement, own }: { movement: Movement; own: ClubMovement | undefined }) => {
  const mayPlan = useMayPlan();
  const navigate = useNavigate();
  const { add, busy } = useAddMovement();
  const putAway = usePutAway('movements');
  const copy = async (): Promise<void> => {
    try {
      const stored = await add(movement, `${movement.name}, ours`.slice(0, 60));
      tell(`${movement.name} is copied; the ${own ? 'other' : 'built-in'} one stays as it is.`);
      void navigate(`/movements/${stored.id}/edit`);
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  const save = async (): Promise<void> => {
    try {
      const { movementFileText } = await onPress(() => import('./file'));
      download(fileName(movement.name, 'json'), movementFileText(movement), 'application/json');
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return (
    <>
      {mayPlan && own && !own.archived && (
        <>
          <Button
            variant="link"
            onClick={() =>
              void putAway(`/movements/${own.id}`, `${movement.name} is put away.`).then(
                (done) => done && navigate('/movements'),
              )
            }
          >
            Put away
          </Button>
          <Link className="btn btn-outline-dark" to={`/movements/${own.id}/edit`}>
            Change
          </Link>
        </>
      )}
      {mayPlan && own?.archived && (
        <Button
          variant="outline-dark"
          onClick={() => void putAway(`/movements/${own.id}`, `${movement.name} is back.`, false)}
        >
          Bring back
        </Button>
      )}
      <Button variant="outline-dark" onClick={() => window.print()}>
        Print
      </Button>
      <Button variant="outline-dark" onClick={() => void save()}>
        Save as a file
      </Button>
      {mayPlan && (
        <Button variant="outline-dark" disabled={busy} onClick={() => void copy()}>
          {busy ? 'Copying …' : 'Copy and change'}
        </Button>
      )}
    </>
  );
};

const Shown = ({
  movement: written,
  own,
  athletes,
}: {
  movement: Movement;
  own: ClubMovement | undefined;
  athletes: Athlete[];
}) => {
  const { today } = useMember();
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
  const [fault, setFault] = useState<string>(
    faultOf(movement, query.get('fault') ?? '')?.code ?? movement.faults[0]!.code,
  );
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
  // At the top of its ladder; footwork on air is open to more.
  const asked = demandOf(written, { ...sequenceStart(), drill: chosen.drill, rung: 'opponent' });
  const barred = athletes.flatMap((athlete) => {
    const restriction = athlete.archived ? null : barredBy(asked, athlete.restrictions, today);
    return restriction ? [{ one: athlete, restriction }] : [];
  });
  const broken = movement.ruleSets.flatMap((code) => {
    const set = ruleSets.find((set) => set.id === code);
    return set ? [{ set, breaks: checkRules(layout.footfalls, set) }] : [];
  });
  const note = estimatedNote(athlete, body.estimated);
  const shown = faultOf(movement, fault) ?? movement.faults[0];
  return (
    <>
      <PageHead title={movement.name} over={movement.usedBy.join(', ')}>
        {isChain(written.code) ? (
          <Link className="btn btn-outline-dark" to={chainPlace(written.code)}>
            Change its parts
          </Link>
        ) : (
          <Acts movement={written} own={own} />
        )}
        {mayPlan && !own?.archived && (
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
        {own && <UpdateOffer own={own} />}
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
            {barred.length > 0 && (
              <section className="panel" aria-label="Not for">
                <h2>Not for</h2>
                <ul className="plain-points">
                  {barred.map(({ one, restriction }) => (
                    <li key={one.id}>{whyBarred(one.name, restriction)}</li>
                  ))}
                </ul>
              </section>
            )}
            <RuleCheck checked={broken} />
          </div>
        </div>
        <Fold title="What goes wrong">
          <section className="panel no-print" aria-label="What goes wrong">
            <h2>What goes wrong, and what it brings about</h2>
            <div className="cause-columns">
              <CauseChart faults={movement.faults} chosen={fault} onChoose={setFault} />
              {shown && (
                <div className="cue-card" aria-live="polite">
                  <div className="figure-label">{shown.name}</div>
                  <div className="cue-words">{shown.cue}</div>
                  <div className="mt-1">{shown.sees}</div>
                  {shown.leadsTo.length > 0 && (
                    <div className="small-text mt-1">
                      Brings about:{' '}
                      {shown.leadsTo
                        .map((code) => faultOf(movement, code)?.name.toLowerCase())
                        .join(', ')}
                      .
                    </div>
                  )}
                  <div className="small-text mt-1">
                    Drill:{' '}
                    {shown.drills.map((code, i) => (
                      <span key={code}>
                        {i > 0 && ', '}
                        <a href={`#drill-${code}`}>{drillOf(movement, code)?.name}</a>
                      </span>
                    ))}
                  </div>
                </div>
              )}
            </div>
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
  const own = catalogue.own.find((movement) => movement.id === code);
  const movement = own?.movement ?? documentOf(code, []);
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
      {(people) => <Shown key={code} movement={movement} own={own} athletes={people} />}
    </Loaded>
  );
};
