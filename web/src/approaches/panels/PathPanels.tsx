import { arcDepthM } from '@gravek/core/layout/arc';
import { spanM, type Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import { currentFigures } from '@gravek/core/measuring/measures';
import type { LengthStyle } from '@gravek/core/units';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement, MovementPhase } from '@gravek/contract/movement';
import { turningSchool, turnOf, usualFront } from '@gravek/library/planning/givingGround';
import { wideSpeedMps } from '@gravek/library/planning/plan';
import { phasesOn } from '@gravek/library/planning/branches';
import { barFor, bySchools } from '@gravek/library/movement/schools';
import { isSteady, usualCadence } from '@gravek/library/planning/steadyCadence';
import type { Player } from '../../hearing/player';
import { TakeOffs } from '../../parts/measuring/TakeOffs';
import { useCatalogue } from '../../parts/catalogue/useCatalogue';
import { ArcPanel } from './ArcPanel';
import { CadencePanel } from './CadencePanel';
import { CurvePanel } from './CurvePanel';
import { InFrontPanel } from './InFrontPanel';

type Kind = MovementPhase['steps']['kind'];

const stepsOf = <K extends Kind>(
  path: readonly MovementPhase[],
  kind: K,
): Extract<MovementPhase['steps'], { kind: K }> | undefined =>
  path.find((phase) => phase.steps.kind === kind)?.steps as
    Extract<MovementPhase['steps'], { kind: K }> | undefined;

/** What else a coach decides on a path of this kind: curve, the race with a runner, lanes or cadence. */
export const PathPanels = ({
  movement,
  athlete,
  athletes,
  body,
  layout,
  player,
  choices,
  style,
  disabled,
  onChoose,
}: {
  movement: Movement;
  athlete: Athlete;
  athletes: readonly Athlete[];
  body: Body;
  layout: Layout;
  player: Player;
  choices: SequenceChoices;
  style: LengthStyle;
  disabled: boolean;
  onChoose: (change: Partial<SequenceChoices>) => void;
}) => {
  const path = phasesOn(movement, choices);
  const figures = currentFigures(athlete.readings);
  const curve = stepsOf(path, 'curve');
  // Backing off without a runner to answer is no race.
  const front = stepsOf(path, 'give-ground') && (choices.inFront ?? usualFront(movement, body));
  const arc = stepsOf(path, 'arc');
  // As it is written it still has both ways of turning.
  const written = useCatalogue().of(movement.code);
  const turning = front ? turningSchool(written) : undefined;
  const wide = movement.phases.find((phase) => phase.steps.kind === 'arc-move')?.steps;
  const straightSteps = path.reduce(
    (sum, { steps }) => sum + (steps.kind === 'build-up' ? steps.steps : 0),
    0,
  );
  return (
    <>
      {layout.curve && curve?.bar && (
        <CurvePanel
          curve={layout.curve}
          chosen={choices.bar}
          ground={choices.ground}
          usual={{
            ...barFor(curve.bar, body),
            entryFlareDeg: curve.bar.entryFlareDeg ?? 0,
            curveSteps: curve.steps,
            straightSteps,
            uprightGapM: 4,
            apron: null,
          }}
          measured={body.curveStepM !== undefined}
          style={style}
          disabled={disabled}
          onChoose={(bar) => onChoose({ bar })}
        />
      )}
      {layout.curve && curve?.bar && (
        <TakeOffs
          athlete={athlete}
          planned={choices.bar ?? barFor(curve.bar, body)}
          style={style}
          disabled={disabled}
        />
      )}
      {front && (
        <InFrontPanel
          chosen={front}
          taught={turnOf(bySchools(movement, choices.schools))}
          athletes={athletes}
          body={body}
          player={player}
          style={style}
          disabled={disabled}
          onChoose={(inFront) => onChoose({ inFront })}
          onTurn={
            turning &&
            ((turn) =>
              onChoose({ schools: { ...choices.schools, [turning.school]: turning[turn] } }))
          }
        />
      )}
      {arc && (
        <ArcPanel
          chosen={{
            depthM: Number(
              arcDepthM({ ...arc, goalM: choices.ground?.goalM ?? arc.goalM }, body).toFixed(2),
            ),
            lanes: arc.lanes,
            spreadDeg: arc.spreadDeg,
            fromLane: arc.toLane,
            toLane: wide?.kind === 'arc-move' ? wide.toLane : arc.lanes,
            speedMps: Number((wideSpeedMps(movement, body) ?? 2.2).toFixed(1)),
            ...choices.arc,
            goalM: choices.ground?.goalM ?? choices.arc?.goalM ?? arc.goalM,
          }}
          ground={choices.ground}
          shuffleM={spanM(arc.step, body)}
          style={style}
          disabled={disabled}
          onChoose={(arc) => onChoose({ arc })}
        />
      )}
      {isSteady(movement) && (
        <CadencePanel
          chosen={choices.cadence ?? usualCadence(movement, body)!}
          body={body}
          figures={figures}
          style={style}
          disabled={disabled}
          onChoose={(cadence) => onChoose({ cadence })}
        />
      )}
    </>
  );
};
