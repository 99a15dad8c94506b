import { countSteps } from '@gravek/core/layout/shape';
import { checkRules } from '@gravek/core/runup/stepRules';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Rung } from '@gravek/contract/rungs';
import { drillOf } from '@gravek/library/movement/byCode';
import { sideWord } from '@gravek/library/movement/sides';
import type { OtherWay } from '@gravek/library/planning/otherWays';
import { laidOut } from '@gravek/library/planning/plan';
import { branchesOf, phasesOn } from '@gravek/library/planning/branches';
import { asPlanned } from '@gravek/library/planning/solvePlan';
import { stepsIn } from '@gravek/library/planning/stepWords';
import { useCallback, useMemo, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { NumberInput } from '../../controls/NumberInput';
import { Beats } from '../../drawing/Beats';
import { PlanView } from '../../drawing/PlanView';
import { beatsOfLayout, phaseAt, phaseSpans } from '../../hearing/beats';
import { PlayControls } from '../../hearing/PlayControls';
import { useRuleSets } from '../../parts/catalogue/useCatalogue';
import { GroundChoice } from '../../parts/movement/GroundChoice';
import { useLaidOver } from '../../parts/movement/LaidOver';
import { RungChoice, SpeedsByPhase } from '../../parts/movement/PaceChoices';
import { PartChoice } from '../../parts/movement/PartChoice';
import { Phases } from '../../parts/movement/Phases';
import { ReadChoices } from '../../parts/movement/ReadChoices';
import { RuleCheck } from '../../parts/movement/RuleCheck';
import { SetOut } from '../../parts/movement/SetOut';
import { SpotChoice } from '../../parts/movement/SpotChoice';
import { ThreeLooks } from '../../parts/movement/ThreeLooks';
import { PathPanels } from '../panels/PathPanels';
import { UnitAndPrint } from '../setOut/UnitAndPrint';
import { EveryStep } from './EveryStep';
import type { ChoiceParts, PlanParts } from './parts';

/** The way on the ground from above, with its rhythm by phase. */
export const SequenceDrawing = ({
  draft,
  choices,
  movement,
  athlete,
  body,
  solved,
  player,
  zoom,
  messages,
}: PlanParts & { choices: SequenceChoices }) => {
  const layout = solved?.layout;
  const branches = useMemo(
    () => (layout ? branchesOf(movement, body, asPlanned(movement, choices, body)) : []),
    [layout, movement, body, choices],
  );
  const lay = useCallback(
    ({ reads, schools }: OtherWay) =>
      laidOut(movement, body, asPlanned(movement, { ...choices, reads, schools }, body)),
    [movement, body, choices],
  );
  const { over, choice: overChoice } = useLaidOver(movement, choices, lay);
  if (!layout) {
    return (
      <div className="empty" role="status">
        <strong>Nothing to draw yet.</strong>
        {Object.values(messages).find(Boolean)}
      </div>
    );
  }
  return (
    <>
      <PlanView
        zoom={zoom}
        branches={branches}
        over={choices.drill === null ? over : null}
        layout={layout}
        player={player}
        shoeM={body.shoeM}
        maxHeight={300}
        phases={movement.phases}
        label={`${movement.name} for ${athlete.name}: ${stepsIn(countSteps(layout), layout.totalTimeS)}${layout.mirrored ? ', mirrored' : ''}`}
      />
      <Beats
        contacts={beatsOfLayout(layout)}
        totalTimeS={layout.totalTimeS}
        phases={phaseSpans(layout, movement.phases)}
        player={player}
      />
      <PlayControls player={player} name={draft.name} nameAt={phaseAt(layout, movement.phases)} />
      {choices.drill === null && overChoice}
      {layout.held.map(({ phase, part }) => (
        <div key={phase} className="note small-text mt-1" role="status">
          {movement.phases.find((other) => other.code === phase)?.name} at{' '}
          <span className="figure">{Math.round(part * 100)} %</span> of what was asked: from more
          nobody with this body could brake for what follows.
        </div>
      ))}
    </>
  );
};

/** Below the drawing: what the kind of path brings, what is chosen, phases, rules and marks to set out. */
export const SequencePanels = ({
  choices,
  movement,
  athlete,
  athletes,
  body,
  solved,
  player,
  style,
  disabled,
  messages,
  onChoices,
  onMessage,
  onLeave,
}: ChoiceParts<SequenceChoices>) => {
  const [phase, setPhase] = useState<string | null>(null);
  const ruleSets = useRuleSets();
  const layout = solved?.layout;
  const rules = ruleSets.find((set) => set.id === choices.ruleSet);
  const set = (change: Partial<SequenceChoices>): void =>
    onChoices({ ...choices, ...change }, Object.keys(change).join());
  return (
    <>
      {layout && (
        <div className="stack mb-3">
          <PathPanels
            movement={movement}
            athlete={athlete}
            athletes={athletes}
            body={body}
            layout={layout}
            player={player}
            choices={choices}
            style={style}
            disabled={disabled}
            onChoose={set}
          />
        </div>
      )}
      <div className="planner-columns">
        <section aria-label="The plan" className="no-print stack">
          <h2 className="mb-0">The plan</h2>
          <div>
            <Link to={`/movements/${movement.code}`}>{movement.name}</Link>
            {layout?.mirrored && (
              <span className="quiet">, drawn for the {sideWord(movement, athlete, 'own')}</span>
            )}
          </div>
          <ReadChoices movement={movement} chosen={choices} disabled={disabled} onChoose={set} />
          <PartChoice
            movement={movement}
            drill={choices.drill}
            explained
            disabled={disabled}
            onChoose={(drill) => set({ drill })}
          />
          <label className="choice">
            <span className="form-label">Speed, % of full</span>
            <NumberInput
              value={choices.speedFraction}
              scale={100}
              decimals={0}
              width="6rem"
              onNumber={(speed) => {
                const possible = speed >= 0.2 && speed <= 1.1;
                onMessage('speedFraction', possible ? null : 'Between 20 and 110 %.');
                if (possible) set({ speedFraction: speed });
              }}
              onMessage={(message) => message !== null && onMessage('speedFraction', message)}
            />
            {messages.speedFraction && (
              <span className="field-message" role="alert">
                {messages.speedFraction}
              </span>
            )}
          </label>
          <SpeedsByPhase
            path={phasesOn(movement, choices)}
            speeds={choices.speeds ?? {}}
            disabled={disabled}
            onSpeeds={(speeds) => set({ speeds })}
          />
          <RungChoice
            rung={choices.rung}
            rungs={(choices.drill ? drillOf(movement, choices.drill) : undefined)?.rungs as Rung[]}
            disabled={disabled}
            onRung={(rung) => set({ rung })}
          />
          <SpotChoice
            movement={movement}
            ground={choices.ground}
            spot={choices.spot}
            disabled={disabled}
            onSpot={(spot) => set({ spot })}
          />
          <GroundChoice
            ground={choices.ground}
            disabled={disabled}
            onGround={(ground) => set({ ground })}
          />
          <label className="choice">
            <span className="form-label">Step rules</span>
            <Form.Select
              value={choices.ruleSet ?? ''}
              disabled={disabled}
              onChange={(event) => set({ ruleSet: event.target.value || null })}
            >
              <option value="">none</option>
              {ruleSets.map((set) => (
                <option key={set.id} value={set.id}>
                  {set.name}
                </option>
              ))}
            </Form.Select>
          </label>
        </section>
        <div className="no-print">
          <Phases
            movement={movement}
            path={phasesOn(movement, choices)}
            chosen={phase}
            onChoose={setPhase}
          />
        </div>
        <div className="stack">
          {rules && layout && (
            <div className="no-print">
              <RuleCheck checked={[{ set: rules, breaks: checkRules(layout.footfalls, rules) }]} />
            </div>
          )}
          {layout && (
            // On paper a curve has its tapes instead.
            <div className={layout.curve ? 'no-print' : undefined}>
              <SetOut layout={layout} style={style} />
            </div>
          )}
          <ThreeLooks movement={movement} path={phasesOn(movement, choices)} />
          {layout && <EveryStep layout={layout} movement={movement} style={style} />}
          <UnitAndPrint athlete={athlete} unit={style.unit} onLeave={onLeave} />
        </div>
      </div>
    </>
  );
};
